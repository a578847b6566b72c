import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';

type Report = (field: string, reason: string | undefined) => void;

const Reporting = createContext<Report | undefined>(undefined);

/** Tells the form around a field why what stands in it does not count; nothing outside of one. */
export function useReported(field: string, reason: string | undefined): void {
  const report = useContext(Reporting);
  useEffect(() => {
    report?.(field, reason);
    return () => report?.(field, undefined);
  }, [report, field, reason]);
}

/** What stands in the fields of a form and does not count, in the order it came up. */
export function useReports(): { reasons: string[]; collect: (children: ReactNode) => ReactNode } {
  const [reports, setReports] = useState<ReadonlyMap<string, string>>(new Map());
  const report = useMemo<Report>(
    () => (field, reason) =>
      setReports((before) => {
        if (before.get(field) === reason) return before;
        const next = new Map(before);
        if (reason === undefined) next.delete(field);
        else next.set(field, reason);
        return next;
      }),
    [],
  );
  return {
    reasons: [...reports.values()],
    collect: (children) => <Reporting.Provider value={report}>{children}</Reporting.Provider>,
  };
}
