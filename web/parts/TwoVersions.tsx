import type { ReactNode } from 'react';
import type { Difference } from './differences';
import { Window } from './Window';
import { Columns } from './layout';

/** One of two versions of the same thing, and the press that goes on with it. */
export interface Side {
  title: string;
  action: string;
  onChoose: () => void;
  children?: ReactNode;
}

/** Something changed in two places from the same version: both shown, with what differs, and one chosen. */
export function TwoVersions({
  description,
  mine,
  theirs,
  differences,
}: {
  description: string;
  mine: Side;
  theirs: Side;
  differences: readonly Difference[];
}) {
  return (
    <Window title="Changed in two places" open stay wide onClose={() => {}} description={description}>
      <Columns least={16} most={2}>
        {[mine, theirs].map(({ title, action, onChoose, children }) => (
          <section key={title} className="border-line flex flex-col gap-2 rounded border p-3">
            <h3 className="font-semibold">{title}</h3>
            {children}
            <button type="button" className="action action-main self-start" onClick={onChoose}>
              {action}
            </button>
          </section>
        ))}
      </Columns>
      <h3 className="label pt-4 pb-1">Where they differ</h3>
      <ul className="rule flex flex-col text-[14px] font-medium">
        {differences.slice(0, 12).map(({ path, there, here }) => (
          <li key={path}>
            {path}: <span className="text-graphite">{there}</span> elsewhere,{' '}
            <span className="text-chalk">{here}</span> here
          </li>
        ))}
        {differences.length > 12 && <li className="text-graphite">and {differences.length - 12} more</li>}
      </ul>
    </Window>
  );
}
