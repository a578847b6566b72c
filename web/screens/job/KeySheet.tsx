import { Window } from '../../parts/Window';

const KEYS: readonly (readonly [string, string])[] = [
  ['E', 'turn the chosen strip or slice end for end'],
  ['R', 'roll it over'],
  ['Q', 'a quarter turn, in a pattern that has them'],
  ['L', 'lock the strip where it lies, or free it'],
  ['S', 'swap a slice with a spare'],
  ['X', 'a slice was spoilt, or is good after all'],
  ['D', 'duplicate the strip'],
  ['H', 'hold the part back: it lies on the bench, for a later glue-up'],
  ['Del', 'remove the strip'],
  ['[  ]', 'move the strip up or down'],
  ['↑ ↓, Home, End', 'on the strips: from one to the next, to the first, to the last; so do ← →'],
  ['Space, arrows, Space', 'take up a strip, carry it, put it down'],
  ['← →, Home, End', 'on the stick: the step before or after, the first, the last'],
  ['A', 'on the stick: add a step after the chosen one'],
  ['O', 'on the stick: leave the chosen step out, or put it back in'],
  ['Del', 'on the stick: take the chosen step out'],
  ['↑ ↓', 'in a length: one step of the shop’s rule more or less'],
  ['← →, Del', 'on a clamp or an aid: move it along, take it away'],
  ['F', 'all that is to be looked at, in the order of the work'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z, Ctrl Y', 'redo'],
  ['Esc', 'leave a field as it was'],
  ['?', 'this sheet'],
];

/** All keys of the job screen. */
export function KeySheet({ onClose }: { onClose: () => void }) {
  return (
    <Window title="Keys" open onClose={onClose}>
      <dl className="grid grid-cols-[auto_1fr] gap-x-5 gap-y-2">
        {KEYS.map(([key, what]) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="key text-[14px]">{key}</kbd>
            </dt>
            <dd>{what}</dd>
          </div>
        ))}
      </dl>
    </Window>
  );
}
