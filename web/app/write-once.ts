import { useRef } from 'react';
import { newId } from './ids';

/**
 * The id of a write that makes something new. Sent again after its answer was lost, the same content goes under the
 * same id and is made once; other content, or the same after it was made, is a write of its own.
 */
export function useWriteOnce(): { of: (content: unknown) => string; done: () => void } {
  const last = useRef<{ text: string; write: string }>(undefined);
  return {
    of: (content) => {
      const text = JSON.stringify(content);
      if (last.current?.text !== text) last.current = { text, write: newId() };
      return last.current.write;
    },
    done: () => void (last.current = undefined),
  };
}
