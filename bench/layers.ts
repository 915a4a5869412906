import { fitToSite } from '@/core/fitting';
import { fraction } from '@/core/time';
import { renderTemplate } from '@/core/words';
import { fastest } from './fastest';
import { machineWith, measureOn } from './machine';
import { rounded, SHORT, say } from './say';

const VIDEOS = SHORT ? [5, 10] : [200, 2000];
/** What takes less than a millisecond is done so often before it is measured. */
const WARM = SHORT ? 5 : 200;

const TEMPLATE =
  '{{summary}}\n\n{{#links}}\n{{line}}\n{{/links}}\n\n{{chapters}}\n\n{{#cut-first}}\nA block that may go.\n{{/cut-first}}';
const { SITE_PROFILES } = await import('@/sites/profiles');
const words = {
  title: 'Steaming the ribs',
  // Far more than any site takes, so that everything has to be tried.
  summary: 'An hour an inch in the steam box, then ninety seconds to bend it home. '.repeat(200),
  template: TEMPLATE,
  links: Array.from({ length: 20 }, (_, n) => ({ label: `Link ${n}`, url: `https://link.example/${n}` })),
  tags: Array.from({ length: 40 }, (_, n) => `tag number ${n}`),
  chapters: Array.from({ length: 30 }, (_, n) => ({
    markerId: String(n),
    time: fraction(n * 20),
    title: `Chapter ${n}`,
    repair: undefined,
  })),
  duration: fraction(600),
};
const rendered = await fastest(() => renderTemplate(TEMPLATE, { summary: words.summary }), WARM);
for (const site of Object.values(SITE_PROFILES)) {
  const time = await fastest(() => fitToSite(words, site), SHORT ? 1 : 5);
  say({
    measure: 'fit a text that is far too long',
    site: site.id,
    milliseconds: rounded(time, 1),
    timesOneRendering: rounded(time / rendered),
  });
}

const machine = await machineWith(['stand-ins']);
await measureOn(machine, undefined, async () => {
  const { channelsOfTheYard } = await import('../tests/setup/desk');
  const { newVideo } = await import('../tests/setup/new-video');
  const { database } = await import('@/store/database');
  const { makeDrop } = await import('@/store/drop/drops');
  const { makeVideo } = await import('@/store/record/videos');
  const { newSeries } = await import('@/desk/defaults/series');
  const { editDefaults } = await import('@/desk/defaults/defaults');
  const { lookAtSheet } = await import('@/desk/views/look-at-sheet');

  const { editVideo } = await import('@/desk/video/edit-video');

  /** Rows that the database reads while something is done (MariaDB, server status variables, Handler_read_*). */
  const rowsReadBy = async (work: () => Promise<unknown>): Promise<number> => {
    const read = async () => {
      const [rows = []]: { Value: string }[][] = await database().raw("SHOW GLOBAL STATUS LIKE 'Handler_read%'");
      return rows.reduce((sum, { Value }) => sum + Number(Value), 0);
    };
    const before = await read();
    await work();
    // Asking for it reads rows as well.
    const between = await read();
    return between - before - ((await read()) - between);
  };

  const channels = [...(await channelsOfTheYard()).values()];
  const owner = await newSeries({ name: 'Many' });
  let [made, last, few] = [0, '', 0];
  for (const count of VIDEOS) {
    for (; made < count; made += 1) {
      last = await makeVideo(database(), { ...newVideo(`Video ${made}`), seriesId: owner, seriesFrom: 'person' });
      for (const channel of channels) await makeDrop(database(), last, channel);
    }
    let [n, reached] = [0, 0];
    const time = await fastest(async () => {
      n += 1;
      reached = (await editDefaults({ layer: 'series', owner }, { place: `The slip ${n}` })).length;
    });
    const sheet = await fastest(() => lookAtSheet(last));
    few ||= time;
    say({
      measure: 'change a default, and say which unsent videos it reaches',
      videos: count,
      reached,
      channelsEach: channels.length,
      milliseconds: rounded(time),
      timesTheFewer: rounded(time / few, 1),
      timesReadingOneSheet: rounded(time / sheet, 1),
    });
  }
  let n = 0;
  const edit = () => {
    n += 1;
    return editVideo(last, { summary: `Saved ${n}` });
  };
  // A page reads the Sheet once after a save (tests/e2e/trust); it was worked out three times.
  const saved = (sheets: number) => async () => {
    await edit();
    for (let sheet = 0; sheet < sheets; sheet += 1) await lookAtSheet(last);
  };
  const [once, thrice] = [await fastest(saved(1)), await fastest(saved(3))];
  const [rowsRead, rowsReadBefore] = [await rowsReadBy(saved(1)), await rowsReadBy(saved(3))];
  say({
    measure: 'save one field of a Sheet',
    ...{ milliseconds: rounded(once, 1), millisecondsBefore: rounded(thrice, 1), rowsRead, rowsReadBefore },
    ...{ timesBefore: rounded(once / thrice, 2), rowsTimesBefore: rounded(rowsRead / rowsReadBefore, 2) },
    aims: { timesBefore: { most: 0.6 }, rowsTimesBefore: { most: 0.6 } },
  });
});
