import type { SheetChannel } from '@/desk/look/views';
import { Moment } from '@/ui/moment';

/** Every step of every drop with its time. */
export function History({ channels }: { channels: SheetChannel[] }) {
  const sent = channels.filter((channel) => channel.events.length > 0);
  if (sent.length === 0) return null;
  return (
    <section aria-label="History" className="enamel px-4 py-3.5">
      <h2 className="mb-2">History</h2>
      {sent.map((channel) => (
        <div key={channel.id} className="mb-3 last:mb-0">
          <h3>{channel.name}</h3>
          <ol className="mt-1 text-sm">
            {channel.events.map((event) => (
              <li key={event.id} className="grid gap-x-4 border-line border-t py-1 sm:grid-cols-[150px_1fr]">
                <span className="text-soft">
                  <Moment at={event.at} />
                </span>
                <span>
                  {event.kind === 'snag' && <b className="text-snag">▲ </b>}
                  {event.says}
                </span>
              </li>
            ))}
          </ol>
        </div>
      ))}
    </section>
  );
}
