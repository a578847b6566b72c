import { ringInTitle } from '../../app/title';
import { useEffect, useRef, useState } from 'react';

/** Something that waits, and when that is over, ms. */
export interface Waited {
  key: string;
  words: string;
  until: number;
  /** It stands in the shop's own list: it rings though it was over before this page was opened, until somebody heard it. */
  listed?: { job: string; task: string };
}

/** Two ends of one wait that lie nearer are one, ms. */
const SAME_MS = 120_000;

/** Three short tones. Before anybody touched the page a browser plays none: the words and the title say it all the same. */
function sound(): void {
  try {
    const audio = new AudioContext();
    for (const at of [0, 0.4, 0.8]) {
      const tone = audio.createOscillator();
      const volume = audio.createGain();
      tone.frequency.value = 880;
      volume.gain.value = 0.2;
      tone.connect(volume).connect(audio.destination);
      tone.start(audio.currentTime + at);
      tone.stop(audio.currentTime + at + 0.25);
    }
    setTimeout(() => void audio.close(), 2000);
  } catch {
    // No sound on this machine.
  }
}

/** A notification where these were allowed. A phone shows them through the service worker alone. */
async function notify({ words, key }: Waited): Promise<void> {
  if (!('Notification' in window) || Notification.permission !== 'granted') return;
  try {
    const registration = await navigator.serviceWorker?.getRegistration();
    if (registration) await registration.showNotification(words, { tag: key });
    else new Notification(words, { tag: key });
  } catch {
    // This browser shows none: sound, title and words have rung.
  }
}

/**
 * Rings once for each wait that ends while the page is open, also where the machine slept over it, and for those that ended before and
 * that nobody has heard: a sound, the title of the page, and a notification where these were allowed. Gives what has rung and is
 * not put away, and the way to put it away.
 */
export function useBell(
  waits: readonly Waited[],
  now: number,
  onHeard: (listed: NonNullable<Waited['listed']>) => void,
): { over: Waited[]; hear: () => void } {
  const [over, setOver] = useState<Waited[]>([]);
  const seen = useRef<{ at: number; waits: readonly Waited[] }>(undefined);
  const rung = useRef(new Set<string>());
  useEffect(() => {
    const before = seen.current;
    seen.current = { at: now, waits };
    const ended = [
      ...(before?.waits ?? []).filter(({ until }) => until > (before?.at ?? now) && until <= now),
      ...waits.filter(({ listed, until }) => listed && until <= now),
    ].filter(({ key, until }, i, all) => {
      // The gate of the step, the calendar and the list may tell of the same wait.
      const once = all.findIndex((each) => each.key === key) === i;
      return once && !rung.current.has(`${key} ${Math.round(until / SAME_MS)}`);
    });
    for (const { key, until } of ended) rung.current.add(`${key} ${Math.round(until / SAME_MS)}`);
    // What was heard on another device is out of the list, and rings here no longer.
    const listed = new Set(waits.flatMap((each) => (each.listed ? [each.key] : [])));
    setOver((still) => {
      const next = [...still.filter((each) => !each.listed || listed.has(each.key)), ...ended];
      return next.length === still.length && ended.length === 0 ? still : next;
    });
    if (ended.length === 0) return;
    sound();
    for (const each of ended) void notify(each);
  }, [waits, now]);
  useEffect(() => {
    ringInTitle(over[0]?.words);
    return () => ringInTitle(undefined);
  }, [over]);
  return {
    over,
    hear: () => {
      for (const { key } of over) {
        const row = waits.find((each) => each.key === key && each.listed);
        if (row?.listed) onHeard(row.listed);
      }
      setOver([]);
    },
  };
}
