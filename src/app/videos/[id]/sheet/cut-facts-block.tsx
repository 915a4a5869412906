import { binarySize, codecName, containerName } from '@/core/delivery';
import { rate, rateName, toDecimal, viewerTime } from '@/core/time';
import type { CutView } from '@/desk/views';

/** What the cut was found to be. */
export function CutFactsBlock({ cut }: { cut: CutView | undefined }) {
  const { facts } = cut ?? {};
  if (!facts) return null;
  const { video, audio, duration, bitRate } = facts;
  const exact = rate(video.rate.num, video.rate.den);
  const mega = (bits: number) => `${(bits / 1e6).toFixed(1)} Mbit/s`;
  const rows: [string, string][] = [
    ['File', `${containerName(facts.container)} · ${binarySize(facts.size)}`],
    ['Length', `${viewerTime(duration, duration.num / duration.den)} (${toDecimal(duration, 3)} s)`],
    ['Picture', `${codecName(video.codec)} · ${video.width}×${video.height}`],
    ['Rate', `${rateName(exact)} fps${exact.den === 1 ? '' : ` (${exact.num}/${exact.den})`}`],
    ['Bit rate', bitRate ? mega(bitRate) : 'not told'],
    [
      'Sound',
      audio ? `${codecName(audio.codec)} · ${audio.sampleRate / 1000} kHz · ${channelsName(audio.channels)}` : 'none',
    ],
  ];
  return (
    <section aria-label="The cut" className="enamel px-4 py-3.5">
      <h2 className="mb-2">The cut</h2>
      <dl className="grid grid-cols-[72px_1fr] gap-x-3 gap-y-1 text-sm">
        {rows.map(([name, value]) => (
          <div key={name} className="contents">
            <dt className="text-soft">{name}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}

function channelsName(count: number): string {
  return count === 1 ? 'mono' : count === 2 ? 'stereo' : `${count} channels`;
}
