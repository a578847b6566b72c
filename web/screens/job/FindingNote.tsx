import { TriangleAlert } from 'lucide-react';
import type { Finding } from '../../../core/document';
import { isExplained } from '../../../core/worked/explained';
import { useDisplay } from '../../app/display';
import { useAppSelector } from '../../app/store';
import { FixButton } from '../../parts/FixButton';
import { How } from '../../parts/How';
import { Words } from '../../parts/Words';
import { useEdit } from './use-edit';

/** A finding with its number, its caution, and what Junta can do about it. */
export function FindingNote({ finding }: { finding: Finding }) {
  const display = useDisplay();
  const edit = useEdit();
  const build = useAppSelector(({ job }) => job.build);
  const quiet = finding.severity === 'note';
  return (
    <section
      aria-label="Finding"
      data-code={finding.code}
      className={`border-l-[3px] p-3 text-[14px] ${quiet ? 'border-graphite bg-faint' : 'border-red bg-red-wash'}`}
    >
      <p>
        {!quiet && (
          <TriangleAlert
            size={15}
            className="text-red mr-1.5 inline align-[-2px]"
            aria-label={finding.severity === 'stop' ? 'Stops here' : 'Warning'}
          />
        )}
        <Words phrase={finding.message} display={display} />{' '}
        {build && isExplained(finding.code) && (
          <How
            of={({ workedFinding }) => workedFinding(build, finding)}
            what={`The numbers of this ${quiet ? 'note' : 'warning'}`}
          />
        )}
      </p>
      {finding.caution && (
        <p className="pt-1.5 text-[13px]">
          <strong className="font-semibold">Caution.</strong> {finding.caution}
        </p>
      )}
      {finding.tried && (
        <p className="text-graphite pt-1.5 text-[13px]">
          Tried, and none of it mends this by itself: {finding.tried.join('; ')}.
        </p>
      )}
      {finding.fixes.length > 0 && (
        <div className="flex flex-wrap gap-2 pt-2">
          {finding.fixes.map((fix, i) => (
            <FixButton key={fix.label} fix={fix} first={i === 0} onPress={() => edit(fix.edit)} />
          ))}
        </div>
      )}
    </section>
  );
}
