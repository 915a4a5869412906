'use client';

import { NoticeList } from './notice-list';
import { NoticeSettingsForm } from './notice-settings';

/** What was told, and how a manager wants to be told. */
export function NoticesPage() {
  return (
    <main className="mx-auto grid max-w-[1180px] grid-cols-[minmax(0,1fr)] items-start gap-x-5 gap-y-4 px-4 py-5 sm:px-7 lg:grid-cols-[minmax(0,1fr)_430px]">
      <h1 className="lg:col-span-2">Notices</h1>
      <NoticeList />
      <NoticeSettingsForm />
    </main>
  );
}
