import type { Fix } from '../../core/document';

/** A way out as a button; what it cannot keep of a hand's work is told in it, before it is pressed. */
export function FixButton({
  fix: { label, drops },
  first,
  onPress,
}: {
  fix: Fix;
  first: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      className={`action h-auto! min-h-8 flex-col items-start! gap-0! py-1 text-left whitespace-normal! ${first ? 'border-chalk text-chalk' : ''}`}
      onClick={onPress}
    >
      {label}
      {drops && <span className="text-red text-[13px] font-normal">cannot keep: {drops.join('; ')}</span>}
    </button>
  );
}
