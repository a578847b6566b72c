import type { StepKind, StepKinds } from '../document';
import { assemble } from './assemble/assemble';
import { crosscut } from './crosscut/crosscut';
import { cutApart } from './cutApart/cutApart';
import { feature } from './feature/feature';
import { fill } from './fill/fill';
import { finish } from './finish/finish';
import { fit } from './fit/fit';
import { flatten } from './flatten/flatten';
import { glue } from './glue/glue';
import { have } from './have/have';
import { install } from './install/install';
import { joint } from './joint/joint';
import { mill } from './mill/mill';
import { oblique } from './oblique/oblique';
import { outside } from './outside/outside';
import { resaw } from './resaw/resaw';
import { rest } from './rest/rest';
import { rip } from './rip/rip';

import { shape } from './shape/shape';
import { slice } from './slice/slice';
import { surface } from './surface/surface';
import { trim } from './trim/trim';
import { turn } from './turn/turn';
import type { StepRoom } from './room';

/** Every kind of step, one line each, in the order of the menu. A kind without a room, or a room without a kind, does not compile. */
export const ROOMS: { [K in StepKind]: StepRoom<StepKinds[K]> } = {
  rip,
  have,
  mill,
  glue,
  flatten,
  joint,
  slice,
  cutApart,
  turn,
  trim,
  crosscut,
  rest,
  finish,
  resaw,
  oblique,
  shape,
  feature,
  fill,
  surface,
  fit,
  install,
  assemble,
  outside,
};
