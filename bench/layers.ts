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
});
