'use client';

import { Check, Copy } from 'lucide-react';
import { useState } from 'react';
import { BUTTONS } from './button-words';
import { useNotices } from './notices';

/** A share link, or another text, that goes to the clipboard with a click. */
export function CopyLink({ link, says = BUTTONS.copyLink }: { link: string; says?: string }) {
  const [copied, setCopied] = useState(false);
  const { trouble } = useNotices();
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(link);
      setCopied(true);
      setTimeout(() => setCopied(false), 2000);
    } catch {
      trouble(`The browser does not let the link be copied. It is ${link}`);
    }
  };
  return (
    <button
      type="button"
      onClick={copy}
      data-tip={link}
      className="inline-flex min-h-6 items-center gap-1.5 align-bottom text-[13px] text-copper hover:underline"
    >
      {copied ? <Check size={14} aria-hidden /> : <Copy size={14} aria-hidden />}
      {copied ? 'Copied' : says}
    </button>
  );
}
