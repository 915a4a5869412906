'use client';

import { NOTICE_KINDS, type NoticeKind, type NoticeWay } from '@/core/notices';
import { Button } from '@/ui/button';
import { Choose } from '@/ui/choose';
import { CopyLink } from '@/ui/copy-link';
import { TickBox } from '@/ui/tick-box';
import { KeptField } from './kept-field';
import { QuietHours } from './quiet-hours';
import { type NoticeSettingsHandle, useNoticeSettings } from './use-notice-settings';

const KIND_NAMES: Record<NoticeKind, string> = {
  'needs you': 'Needs me',
  live: 'Went live',
  missed: 'Did not open in time',
  changed: 'Was changed at a site',
  done: 'What I asked of many videos is done',
};

/** How a manager wants to be told. Each change is kept at once. */
export function NoticeSettingsForm() {
  const handle = useNoticeSettings();
  if (!handle.view) return null;
  return (
    <section aria-label="How you are told" className="enamel grid grid-cols-[minmax(0,1fr)] gap-4 px-4 py-3.5 text-sm">
      <div>
        <h2>How you are told</h2>
        <p className="text-[13px] text-soft">Beside the list here. Each change holds at once.</p>
      </div>
      <Browser handle={handle} />
      <Mail handle={handle} />
      <Webhook handle={handle} />
      <QuietHours handle={handle} />
      <Channels handle={handle} />
    </section>
  );
}

type PartProps = { handle: NoticeSettingsHandle };

function Kinds({ handle, way }: PartProps & { way: NoticeWay }) {
  const { view, put } = handle;
  if (!view?.settings[way].on) return null;
  const { kinds } = view.settings;
  const set = (kind: NoticeKind, on: boolean) => {
    const chosen = NOTICE_KINDS.filter((each) => (each === kind ? on : kinds[way].includes(each)));
    void put({ kinds: { [way]: chosen } });
  };
  return (
    <fieldset className="grid gap-1 pl-7">
      <legend className="sr-only">What is told</legend>
      {NOTICE_KINDS.map((kind) => (
        <TickBox key={kind} ticked={kinds[way].includes(kind)} onTick={(on) => set(kind, on)}>
          {KIND_NAMES[kind]}
        </TickBox>
      ))}
    </fieldset>
  );
}

function Trouble({ handle, way }: PartProps & { way: NoticeWay }) {
  const found = handle.view?.trouble.find((each) => each.way === way);
  if (!found) return null;
  return (
    <p className="pl-7 text-snag [overflow-wrap:anywhere]">
      ▲ {found.count} could not be sent: {found.trouble}
    </p>
  );
}

function Browser({ handle }: PartProps) {
  const { view, put } = handle;
  const turn = async (next: boolean) => {
    if (next && typeof Notification !== 'undefined') await Notification.requestPermission();
    await put({ browser: { on: next } });
  };
  const allowed = typeof Notification !== 'undefined' ? Notification.permission : 'granted';
  const on = view?.settings.browser.on ?? false;
  return (
    <div className="grid gap-2 border-line border-t pt-3">
      <TickBox ticked={on} onTick={(next) => void turn(next)}>
        <b className="font-semibold">In the browser</b>, while a page of Kettle Drop is open
      </TickBox>
      {on && allowed === 'default' && (
        <Button look="quiet" className="ml-7 justify-self-start" onClick={() => void turn(true)}>
          Allow it in this browser
        </Button>
      )}
      {on && allowed === 'denied' && (
        <p className="pl-7 text-snag">
          ▲ The browser does not allow it. Allow it in the browser’s settings for this page.
        </p>
      )}
      <Kinds handle={handle} way="browser" />
    </div>
  );
}

function Mail({ handle }: PartProps) {
  const { view, put, tryWay } = handle;
  if (!view) return null;
  const { email, digest } = view.settings;
  const set = (fields: Partial<typeof email>) => void put({ email: fields });
  return (
    <div className="grid gap-2 border-line border-t pt-3">
      <TickBox ticked={email.on} onTick={(on) => set({ on })}>
        <b className="font-semibold">By e-mail</b>
      </TickBox>
      <div className="grid grid-cols-2 gap-2 pl-7">
        <KeptField label="To" value={email.to} onKeep={(to) => set({ to })} className="col-span-2" />
        <KeptField label="From" value={email.from} onKeep={(from) => set({ from })} className="col-span-2" />
        <KeptField
          label="Mail server"
          value={email.host}
          onKeep={(host) => set({ host })}
          placeholder="mail.example.org"
        />
        <KeptField
          label="Port"
          type="number"
          value={String(email.port)}
          onKeep={(port) => set({ port: Number(port) })}
        />
        <KeptField label="User" value={email.user} onKeep={(user) => set({ user })} />
        <KeptField
          label="Password"
          type="password"
          value=""
          placeholder={view.hasPassword ? 'kept' : 'none'}
          onKeep={(password) => void put({}, password)}
        />
        <TickBox ticked={email.secure} onTick={(secure) => set({ secure })} className="col-span-2">
          The server wants TLS from the first byte (often port 465)
        </TickBox>
      </div>
      {email.on && (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1 pl-7">
          <Choose
            label="How often mail comes"
            value={digest}
            options={[
              ['each', 'A mail for each'],
              ['hour', 'One mail an hour'],
              ['day', 'One mail a day, at 8:00'],
            ]}
            onChange={(next) => {
              const { timeZone: zone } = Intl.DateTimeFormat().resolvedOptions();
              void put({ digest: next, digestAt: { minute: 480, zone } });
            }}
          />
          <Button look="quiet" onClick={() => void tryWay('email')}>
            Send a trial mail
          </Button>
        </div>
      )}
      <Trouble handle={handle} way="email" />
      <Kinds handle={handle} way="email" />
    </div>
  );
}

function Webhook({ handle }: PartProps) {
  const { view, put, tryWay, renewSecret } = handle;
  if (!view) return null;
  const { webhook } = view.settings;
  const set = (fields: Partial<typeof webhook>) => void put({ webhook: fields });
  return (
    <div className="grid gap-2 border-line border-t pt-3">
      <TickBox ticked={webhook.on} onTick={(on) => set({ on })}>
        <b className="font-semibold">By webhook</b>, to another program
      </TickBox>
      <div className="grid gap-2 pl-7">
        <KeptField
          label="Address"
          value={webhook.address}
          // Whoever says where to means it to go there; without an address it goes nowhere.
          onKeep={(address) => set({ address, on: address.trim() !== '' })}
          placeholder="https://example.org/kettle"
        />
        {view.secret && (
          <p className="flex flex-wrap items-center gap-x-4 gap-y-1 text-[13px] text-soft">
            Each is signed with a secret.
            <CopyLink link={view.secret} says="Copy the secret" />
            <button type="button" className="textlink" onClick={() => void renewSecret()}>
              Make another secret
            </button>
          </p>
        )}
        {webhook.on && (
          <Button look="quiet" className="justify-self-start" onClick={() => void tryWay('webhook')}>
            Send a trial there
          </Button>
        )}
      </div>
      <Trouble handle={handle} way="webhook" />
      <Kinds handle={handle} way="webhook" />
    </div>
  );
}

function Channels({ handle }: PartProps) {
  const { view, put } = handle;
  if (!view || view.channels.length === 0) return null;
  const { silent } = view.settings;
  return (
    <details className="border-line border-t pt-3">
      <summary className="cursor-pointer">
        <b className="font-semibold">Channels</b>{' '}
        <span className="text-soft">{silent.length === 0 ? 'all of them' : `all but ${silent.length}`}</span>
      </summary>
      <div className="mt-2 grid gap-1 pl-7">
        {view.channels.map(({ id, name, siteName }) => (
          <TickBox
            key={id}
            ticked={!silent.includes(id)}
            onTick={(on) => void put({ silent: on ? silent.filter((each) => each !== id) : [...silent, id] })}
          >
            {name} <span className="text-[13px] text-soft">{siteName}</span>
          </TickBox>
        ))}
      </div>
    </details>
  );
}
