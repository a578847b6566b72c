import ICAL from 'ical.js';
import { describe, expect, it, vi } from 'vitest';
import { readJobFile } from '../../contract/read';
import { demo } from '../../demo';
import { FORMATS } from './formats';
import { jobFormat } from './job';
import { boardsFromCsv, guessColumns, rackFormat, readCsv } from './rack';
import { timelineFormat } from './timeline';
import { calendarFormat } from './calendar';

describe('formats', () => {
  it('are each their own, with all that a list needs', () => {
    const all = (of: (format: (typeof FORMATS)[number]) => string) => FORMATS.map(of);
    for (const own of [all(({ id }) => id), all(({ extension }) => extension), all(({ says }) => says)])
      expect(new Set(own).size).toBe(FORMATS.length);
    for (const { name, says, media } of FORMATS) {
      expect(name).toMatch(/^[A-Z]/);
      expect(says).toMatch(/\.$/);
      expect(media).toMatch(/^[a-z]+\/[a-z+.-]+/);
    }
  });
  it('a format that is added by one line is in the list', async () => {
    vi.resetModules();
    vi.doMock('./rack', async (original) => ({
      ...(await original<object>()),
      rackFormat: { ...rackFormat, id: 'rack-of-tomorrow' },
    }));
    const { FORMATS: changed } = await import('./formats');
    expect(changed.map(({ id }) => id)).toContain('rack-of-tomorrow');
    vi.doUnmock('./rack');
  });
  it('a job that goes out comes in as it was', () => {
    for (const job of demo.jobs)
      expect(readJobFile(jobFormat.writes(job))).toEqual({
        ok: true,
        build: JSON.parse(JSON.stringify(job)),
      });
  });
  it('a rack that goes out comes in with every number, wood and size', () => {
    const boards = demo.boards.map((board, i) => ({ ...board, id: `b${i}` }));
    const table = readCsv(rackFormat.writes({ boards, system: 'mm' }));
    const columns = guessColumns(table.heads);
    const { boards: read, errors } = boardsFromCsv(
      table,
      { columns, system: 'mm', currency: 'EUR', takeOdd: true } as never,
      new Set(),
    );
    expect(errors).toEqual([]);
    expect(read.map(({ label, species, length }) => [label, species, length.mm.toFixed(6)])).toEqual(
      boards.map(({ label, species, length }) => [label, species, length.mm.toFixed(6)]),
    );
  });
  it('a timeline is JSON with every step; a calendar is iCalendar with every stretch', () => {
    const written = JSON.parse(timelineFormat.writes(demo.jobs[0]));
    expect(written.steps).toHaveLength(demo.jobs[0].steps.length);
    const task = {
      ...{
        id: 'glue',
        job: 'j',
        step: 'glue',
        name: 'Glue',
        kind: 'work',
        minutes: 30,
        whole: true,
        after: [],
      },
      spans: [{ from: 0, to: 1_800_000 }],
    } as never;
    const text = calendarFormat.writes({ tasks: [task], jobName: () => 'Job', now: 0, shop: 'Shop' });
    expect(new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent')).toHaveLength(1);
  });
});
