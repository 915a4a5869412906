'use client';

import type { DropPageView } from '@/desk/views/drop-page';
import { Moment } from '@/ui/moment';
import { Part } from './part';

const answered = (status: number) => (status === 0 ? 'no answer' : String(status));

/** What the site was asked for this drop, in short. */
export function Requests({ view }: { view: DropPageView }) {
  const { requests, channel } = view;
  if (requests.length === 0) return null;
  return (
    <Part name={`What ${channel.siteName} was asked`} says="The newest first; what is alike stands together">
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached by keys (WCAG 2.1.1) */}
      <div tabIndex={0} className="max-h-80 overflow-auto">
        <table className="w-full text-[13px] tabular-nums">
          <thead className="text-left text-soft">
            <tr>
              <th className="pr-3 font-normal">When</th>
              <th className="pr-3 font-normal">Asked</th>
              <th className="pr-3 font-normal">Answer</th>
              <th className="pr-3 text-right font-normal">Took</th>
            </tr>
          </thead>
          <tbody>
            {requests.map(({ id, at, method, purpose, status, milliseconds, times }) => (
              <tr key={id} className="border-line border-t">
                <td className="whitespace-nowrap pr-3 text-soft">
                  <Moment at={at} />
                </td>
                <td className="pr-3 [overflow-wrap:anywhere]">
                  <span className="font-mono">{method}</span> {purpose}
                  {times > 1 && <span className="text-soft"> · {times} times</span>}
                </td>
                <td className={`whitespace-nowrap pr-3 ${status === 0 || status >= 400 ? 'text-snag' : ''}`}>
                  {status === 0 || status >= 400 ? '▲ ' : ''}
                  {answered(status)}
                </td>
                <td className="whitespace-nowrap pr-3 text-right">{milliseconds} ms</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Part>
  );
}
