import { attempt, type BuildDocument, type Edit, must, type Refused } from '../document';
import { chain } from './chain';
import { failing } from './failing';
import type { Family } from './family';
import { gluing } from './gluing';
import { measuring } from './measuring';
import { planning } from './planning';
import { settings } from './settings';
import { strips } from './strips';
import { wood } from './wood';

/** Every edit, from its family. One that nobody carries out does not compile. */
const EDITS: Family<Edit['do']> = {
  ...planning,
  ...strips,
  ...settings,
  ...gluing,
  ...wood,
  ...measuring,
  ...chain,
  ...failing,
  many: (build, { edits }) => edits.reduce(carryOut, build),
};

function carryOut(build: BuildDocument, edit: Edit): BuildDocument {
  return (EDITS[edit.do] as (build: BuildDocument, edit: Edit) => BuildDocument)(build, edit);
}

/**
 * Carries out an edit and gives the new build; the old one stays as it was. An edit that names a strip or step that
 * is gone changes nothing. Refused, with the numbers, where `replan` meets a brief that cannot be met or a lay-up is full.
 */
export const applyEdit = (build: BuildDocument, edit: Edit): BuildDocument | Refused =>
  attempt(() => carryOut(build, edit));

/** Several edits, one after the other; the first that is refused refuses them all. */
export const applyEdits = (build: BuildDocument, edits: readonly Edit[]): BuildDocument | Refused =>
  attempt(() => edits.reduce(carryOut, build));

/** The same where it is known that it can be done, as for the demo; throws, in words, where it cannot. */
export const mustEdit = (build: BuildDocument, edit: Edit): BuildDocument =>
  must(applyEdit(build, edit), build.shop.display);
