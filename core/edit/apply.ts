import type { BuildDocument, Edit } from '../document';
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
  many: (build, { edits }) => edits.reduce(applyEdit, build),
};

/**
 * Carries out an edit and gives the new build; the old one stays as it was. An edit that names a strip or step that
 * is gone changes nothing. Throws, with the reason, where `replan` meets a brief that cannot be met or a lay-up is full.
 */
export function applyEdit(build: BuildDocument, edit: Edit): BuildDocument {
  return (EDITS[edit.do] as (build: BuildDocument, edit: Edit) => BuildDocument)(build, edit);
}
