'use client';
import Image from 'next/image';
import { Link } from '../kit/link';
import { useRouter } from '../kit/router';
import { useRef, useState } from 'react';
import type { WorkshopView } from '../../application/views';
import { localeKey, PLAIN } from '../../core/locale/locale';
import { LocaleFields, localeOf } from '../locale/locale-fields';
import { Button } from '../kit/button';
import type { Draft } from '../kit/draft';
import { DraftField, OtherProblems } from '../kit/form';
import { sendBody, problemsOf } from '../kit/send';
import { useMay, usePerson } from '../kit/session';
import { useSend } from '../kit/use-send';

const isChanged = (draft: Draft, { name, locale }: WorkshopView): boolean =>
  draft.name !== name || localeKey(localeOf(draft)) !== localeKey(locale ?? PLAIN);

/** Name and logo, as they stand on letters. */
export function Head({ workshop }: { workshop: WorkshopView }) {
  const router = useRouter();
  const by = usePerson();
  const may = useMay('workshop.change');
  const [draft, setDraft] = useState<Draft>({ name: workshop.name, ...(workshop.locale ?? PLAIN) });
  const { busy, problems, setProblems, post } = useSend();
  async function sendLogo(body: Blob): Promise<void> {
    const sent = await sendBody('/api/workshop/logo', body, body.type || 'application/octet-stream');
    setProblems(sent.ok ? [] : problemsOf(sent.error));
    if (sent.ok) router.refresh();
  }
  return (
    <section aria-label="Name and logo" className="rounded-xl bg-card p-4">
      <form
        noValidate
        className="flex flex-wrap items-end gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          void post('/api/workshop', { by, name: draft.name ?? '', locale: localeOf(draft) }).then((done) => {
            if (done) window.location.reload();
          });
        }}
      >
        <div className="min-w-60 flex-1 [&>div]:mb-0">
          <DraftField
            draft={draft}
            problems={problems}
            onChange={(field, value) => setDraft({ ...draft, [field]: value })}
            field="name"
            path="/name"
            label="Name of the workshop"
            disabled={!may}
          />
        </div>
        {may && (
          <div className="basis-full">
            <p className="mb-2 text-sm text-soft">How numbers are shown to whoever has not chosen for themselves:</p>
            <LocaleFields
              draft={draft}
              problems={problems}
              base="/locale"
              onChange={(field, value) => setDraft({ ...draft, [field]: value })}
            />
          </div>
        )}
        {may && (
          <Button type="submit" disabled={busy || !isChanged(draft, workshop)}>
            Keep it so
          </Button>
        )}
        <LogoFields hasLogo={workshop.hasLogo} may={may} onLogo={(body) => void sendLogo(body)} />
      </form>
      <OtherProblems problems={problems} paths={['/name', '/locale']} />
      <p className="mt-2 text-sm text-soft">
        The logo stands at the head of letters to payers. What is written there, name and address, is kept for each
        depot on the shelf’s screen, under how the depots judge. Torques and other values of your service information:{' '}
        <Link className="underline" href="/service-data">
          Service data
        </Link>
        .
      </p>
    </section>
  );
}

function LogoFields({ hasLogo, may, onLogo }: { hasLogo: boolean; may: boolean; onLogo: (body: Blob) => void }) {
  const picked = useRef<HTMLInputElement>(null);
  return (
    <>
      {hasLogo && (
        <Image src="/api/workshop/logo" alt="Logo" width={160} height={48} unoptimized className="h-12 w-auto" />
      )}
      {may && (
        <>
          <input
            ref={picked}
            type="file"
            accept="image/png,image/jpeg"
            aria-label="Logo, PNG or JPEG"
            className="sr-only"
            tabIndex={-1}
            onChange={(e) => {
              const [file] = e.target.files ?? [];
              if (file) onLogo(file);
            }}
          />
          <Button onClick={() => picked.current?.click()}>{hasLogo ? 'Another logo' : 'Logo …'}</Button>
          {hasLogo && <Button onClick={() => onLogo(new Blob([]))}>Without a logo</Button>}
        </>
      )}
    </>
  );
}
