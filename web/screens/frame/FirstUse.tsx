import { X } from 'lucide-react';
import { useState } from 'react';
import { useLocation } from 'react-router';
import { type Address, addressOf } from '../../app/addresses';
import { hintsRead, readHint } from '../../app/hints';

/** What a screen is for, in a line for whoever sees it first. An address that is added does not compile until it is here. */
const FIRST_USE: Record<Address, string | undefined> = {
  start: undefined,
  'start/shop': undefined,
  shops: undefined,
  today: 'What waits, what comes next and what is short, of all your jobs. Read it in the morning.',
  jobs: 'Each job is a piece you plan or make. Press one to open it; the three dots rename, copy or put it away.',
  'jobs/new': 'Say what you want. Junta plans strips, glue-ups and cuts for it, with your machines.',
  patterns: 'Every pattern Junta plans, drawn from the same strips. Press one to begin a job with it.',
  'jobs/:id':
    'The lath above shows every step with its sizes. Press a mark to see that step, press a strip to change it.',
  'jobs/:id/wood':
    'Which strip comes out of which board. Break down the boards, then drag a strip where you want it.',
  'jobs/:id/wood/sheet': undefined,
  'jobs/:id/sheets': undefined,
  'jobs/:id/look': 'The finished piece from all sides. Drag to turn it.',
  'jobs/:id/cost':
    'What the job costs, planned and so far. Say what things cost you below; the price follows.',
  'jobs/:id/record': 'Everything that was done to this piece. Print it, or make the piece again.',
  'jobs/:id/rehearse/:step':
    'A dry run without glue: press when each act is done, and Junta learns your pace.',
  'jobs/:id/bench':
    'One thing to do at a time, to be read from the bench. Press Begin, and tick each when it is done.',
  calendar: 'Work and waits on your days. Drag work to another time; Undo takes it back.',
  rack: 'Your boards. Type one into the line, Enter puts it on the rack; draw its faults where they are.',
  kit: 'Your machines, clamps and glue with their limits. Every plan keeps to them.',
  gauges: 'Gauges to try out: what they send comes to the bench of a job that is open.',
  log: 'What your readings say of your machines. Take over what is right; one press puts it back.',
  tables: 'The numbers that Junta computes with, and where they come from.',
};

/** Said once where a browser gives a page less, since it came over plain HTTP from another host. */
const PLAIN = 'plain-http';
const PLAIN_SAYS =
  'Over plain HTTP this browser keeps no copy of Junta, lets the screen go dark and shows no notifications. With a certificate (JUNTA_CERT and JUNTA_KEY, see the README) it does.';

/** The first-use line of the screen that is shown, until it is put away; then never again in this browser. */
export function useFirstUse(): { text: string | undefined; done: () => void } {
  const { pathname } = useLocation();
  const [, redraw] = useState(0);
  const address = addressOf(pathname);
  const unread = address && !hintsRead().includes(address) ? FIRST_USE[address] : undefined;
  const plain = !window.isSecureContext && !hintsRead().includes(PLAIN) ? PLAIN_SAYS : undefined;
  return {
    text: unread ?? plain,
    done: () => {
      if (unread && address) readHint(address);
      else readHint(PLAIN);
      redraw((n) => n + 1);
    },
  };
}

/** One line under the head. */
export const FirstUse = ({ text, onDone }: { text: string; onDone: () => void }) => (
  <aside
    aria-label="What this screen is for"
    className="bg-chalk-wash border-line desk:h-(--hint) flex items-center gap-3 border-b px-5 text-[14px] print:hidden max-desk:px-3 max-desk:py-1"
  >
    <span className="desk:truncate">{text}</span>
    <button
      type="button"
      className="text-chalk flex min-h-7 shrink-0 items-center gap-1 underline"
      onClick={onDone}
    >
      <X size={14} aria-hidden /> Got it
    </button>
  </aside>
);
