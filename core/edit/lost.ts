import { type BuildDocument, type Edit, isRefused } from '../document';
import { applyEdit } from './apply';
import { plannedAgain } from './planning';

/** What an edit cannot keep of what a hand did, by name: planning again makes the steps anew. Empty where nothing is lost. */
export function lostBy(build: BuildDocument, edit: Edit): string[] {
  if (edit.do === 'replan') {
    const planned = plannedAgain(build, edit.change);
    return isRefused(planned) ? [] : planned.lost;
  }
  if (edit.do !== 'many') return [];
  let at = build;
  return edit.edits.flatMap((each) => {
    const lost = lostBy(at, each);
    const next = applyEdit(at, each);
    if (!isRefused(next)) at = next;
    return lost;
  });
}
