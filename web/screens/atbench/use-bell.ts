import { useEffect, useRef, useState } from 'react';

/** Something that waits, and when that is over, ms. */
export interface Waited {
  key: string;
  words: string;
  until: number;
}

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
 * Rings once for each wait that ends while the page is open, also where the machine slept over it: a sound, the title of the
 * page, and a notification where these were allowed. Gives what has rung and is not put away, and the way to put it away.
 */
export function useBell(waits: readonly Waited[], now: number): { over: Waited[]; hear: () => void } {
  const [over, setOver] = useState<Waited[]>([]);
  const seen = useRef<{ at: number; waits: readonly Waited[] }>(undefined);
  useEffect(() => {
    const before = seen.current;
    seen.current = { at: now, waits };
    if (!before) return;
    const all = before.waits.filter(({ until }) => until > before.at && until <= now);
    // The gate of the step and the calendar may tell of the same wait.
    const ended = all.filter(({ key }, i) => all.findIndex((each) => each.key === key) === i);
    if (ended.length === 0) return;
    setOver((rung) => [...rung, ...ended.filter(({ key }) => !rung.some((each) => each.key === key))]);
    sound();
    for (const each of ended) void notify(each);
  }, [waits, now]);
  useEffect(() => {
    if (over.length === 0) return;
    const before = document.title;
    document.title = `● ${over[0].words}`;
    return () => void (document.title = before);
  }, [over]);
  return { over, hear: () => setOver([]) };
}
