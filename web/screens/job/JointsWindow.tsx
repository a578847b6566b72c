import { jointSentence } from '../../../core/view';
import { useDisplay } from '../../app/display';
import { useAppSelector } from '../../app/store';
import { JOINT_SIGNS } from '../../drawing/JointMarks';
import { Window } from '../../parts/Window';

/** What the signs on the joints mean, and every joint of the lay-up in a sentence. */
export function JointsWindow({ step, onClose }: { step: string; onClose: () => void }) {
  const display = useDisplay();
  const readings = useAppSelector(({ job }) => job.outlook?.seams) ?? [];
  const laid = useAppSelector(({ job }) => job.outlook?.steps.find(({ id }) => id === step)?.laid);
  const order = laid?.map(({ piece }) => piece) ?? [];
  return (
    <Window title="What the signs on the joints say" open wide onClose={onClose}>
      <dl className="grid grid-cols-[110px_1fr] items-center gap-x-4 gap-y-2 text-[14px]">
        {JOINT_SIGNS.map(({ sign, says }) => (
          <div key={says} className="contents">
            <dt className="flex justify-center">{sign}</dt>
            <dd>{says}</dd>
          </div>
        ))}
      </dl>
      <h3 className="pt-4 pb-1 font-semibold">Joint by joint, from the far edge</h3>
      <ol className="flex flex-col gap-1 text-[14px]" aria-label="Joints">
        {readings.map((reading) => (
          <li key={reading.between.join()}>{jointSentence(reading, order, display)}</li>
        ))}
      </ol>
    </Window>
  );
}
