'use client';
import { tr } from '../../core/locale/translate';
import { Link } from '../kit/link';
import { type MouseEvent, type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { DeviceView } from '../../application/device-rooms';
import { Bench } from '../bench/bench';
import { CircuitsOfJob } from '../job/circuit';
import { JobScreen } from '../job/job-screen';
import { Button, buttonLook } from '../kit/button';
import { readByMemory } from '../locale/page-reader';
import { DeviceRouter, type Router } from '../kit/router';
import { answerWithoutServer } from '../kit/send';
import { TopBar } from '../kit/top-bar';
import { UnitHeading } from '../kit/unit-heading';
import { Yard } from '../yard/yard';
import { answerOnDevice, closeDevice, openDevice, viewOnDevice } from './device';
import { type KnownPerson, people, personAtBench, setPersonAtBench } from './device-store';
import { DeviceSession } from './device-session';
import { NoServer } from './no-server';
import { Unlock } from './unlock';
import { keepAwake, lock, unlockByMemory } from './vault';
import { Waiting } from './waiting';
import { WhatWaits } from './what-waits';

type State =
  | { readonly at: 'opening' }
  /** Nobody has signed in on this device, or it was wiped, or no copy was made yet. */
  | { readonly at: 'nothing'; readonly because: string }
  | { readonly at: 'locked'; readonly known: readonly KnownPerson[]; readonly name: string }
  | { readonly at: 'open'; readonly known: readonly KnownPerson[]; readonly person: KnownPerson };

/**
 * The application on this device, while there is no server: whatever the address names, drawn from the
 * device’s copy.
 */
export function Shell() {
  const [state, setState] = useState<State>({ at: 'opening' });
  const open = useCallback(async (person: KnownPerson): Promise<void> => {
    setState({ at: 'opening' });
    answerWithoutServer((request) => answerOnDevice(request, person.name), true);
    try {
      await readByMemory(person.name);
      await setPersonAtBench(person.name);
      const isOpen = await openDevice();
      setState(
        isOpen
          ? { at: 'open', known: await people(), person }
          : { at: 'nothing', because: 'This device has no copy of the work yet: it is made while there is a server.' },
      );
    } catch (error) {
      setState({ at: 'nothing', because: tr`What this device has does not open: ${String(error)}` });
    }
  }, []);
  useEffect(() => {
    const begin = async (): Promise<void> => {
      const [known, name] = await Promise.all([people(), personAtBench()]);
      const person = known.find((p) => p.name === name);
      if (known.length === 0)
        setState({ at: 'nothing', because: 'Nobody has signed in on this device since it could be kept here.' });
      else if (person && (await unlockByMemory())) await open(person);
      else setState({ at: 'locked', known, name });
    };
    void begin().catch((error: unknown) =>
      setState({ at: 'nothing', because: tr`The device’s copy does not open: ${String(error)}` }),
    );
    return keepAwake();
  }, [open]);
  const onLock = useCallback(async (name: string): Promise<void> => {
    answerWithoutServer(null);
    closeDevice();
    await lock();
    setState({ at: 'locked', known: await people(), name });
  }, []);
  switch (state.at) {
    case 'opening':
      return <Notice title="Opening what is on this device" />;
    case 'nothing':
      return (
        <Notice title="There is no server">
          <p className="mb-4">{state.because}</p>
          <Button onClick={() => window.location.reload()}>Try again</Button>
        </Notice>
      );
    case 'locked':
      return (
        <Unlock
          people={state.known}
          name={state.name}
          onOpen={(p) => void open(p)}
          onWiped={() => {
            closeDevice();
            setState({
              at: 'nothing',
              because:
                'Five wrong PINs: this device was wiped. What waited was saved as a file; a lead takes it to the server.',
            });
          }}
        />
      );
    case 'open':
      return (
        <DeviceSession
          person={state.person}
          others={state.known.filter((p) => p.name !== state.person.name)}
          onLock={onLock}
        >
          <Pages />
        </DeviceSession>
      );
  }
}

function Notice({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <main className="mx-auto grid min-h-dvh w-full max-w-md content-center p-6" aria-busy={!children}>
      <section className="rounded-xl bg-card p-6">
        <h1 className="mb-2 text-2xl font-bold">{title}</h1>
        {children}
      </section>
    </main>
  );
}

const here = (): string => `${window.location.pathname}${window.location.search}`;
/** Pages that are drawn from the device. */
const ON_DEVICE = /^\/(?:$|waits$|runs\/[0-9a-f-]{36}$|jobs\/[0-9a-f-]{36}(?:\/circuits)?$)/;

type Shown =
  | { readonly address: string; readonly page: DeviceView | { readonly page: 'waits' } }
  | { readonly address: string; readonly page: null; readonly because: string };

function Pages() {
  const [address, setAddress] = useState(here);
  const [shown, setShown] = useState<Shown | null>(null);
  const [isFor, setIsFor] = useState<string | null>(null);
  // What was asked for last is shown, whatever answers first.
  const asked = useRef(0);
  const draw = useCallback(async (to: string): Promise<void> => {
    const turn = ++asked.current;
    const { pathname, hash } = new URL(to, window.location.origin);
    const page =
      pathname === '/waits' ? { page: 'waits' as const } : ON_DEVICE.test(pathname) ? await viewOnDevice(to) : null;
    if (turn === asked.current)
      setShown(page ? { address: to, page } : { address: to, page: null, because: 'This page is not on this device.' });
    if (hash) requestAnimationFrame(() => document.getElementById(hash.slice(1))?.scrollIntoView());
  }, []);
  useEffect(() => {
    // After this round of drawing: the page is another one then.
    queueMicrotask(() => void draw(address));
  }, [address, draw]);
  useEffect(() => {
    const follow = (): void => setAddress(here());
    window.addEventListener('popstate', follow);
    return () => window.removeEventListener('popstate', follow);
  }, []);
  const router = useMemo((): Router => {
    const go = (to: string, how: 'pushState' | 'replaceState'): void => {
      setIsFor(null);
      window.history[how](null, '', to);
      if (how === 'pushState') window.scrollTo(0, 0);
      setAddress(here());
    };
    return {
      push: (to) => go(to, 'pushState'),
      replace: (to) => go(to, 'replaceState'),
      refresh: () => void draw(here()),
    };
  }, [draw]);

  /** Links lead to the device’s pages; what only the server has is said to be so. */
  function onClick(event: MouseEvent): void {
    const link = (event.target as Element).closest('a');
    if (!link || event.metaKey || event.ctrlKey || event.shiftKey) return;
    const to = new URL(link.href);
    if (to.origin !== window.location.origin || to.protocol === 'blob:') return;
    if (to.pathname === window.location.pathname && to.hash) return;
    event.preventDefault();
    if (ON_DEVICE.test(to.pathname)) router.push(`${to.pathname}${to.search}${to.hash}`);
    else setIsFor(link.textContent.trim() || to.pathname);
  }

  return (
    <DeviceRouter value={router}>
      <div className="flex min-h-dvh flex-col" onClickCapture={onClick}>
        <NoServer asked={isFor} onUnderstood={() => setIsFor(null)} />
        {shown === null ? <p className="p-6">Opening</p> : <Page shown={shown} />}
        <Waiting />
      </div>
    </DeviceRouter>
  );
}

function Page({ shown }: { shown: Shown }) {
  const { page } = shown;
  if (page === null)
    return (
      <>
        <TopBar>
          <h1 className="text-lg font-bold text-ink">Not on this device</h1>
        </TopBar>
        <main className="mx-auto w-full max-w-md p-6">
          <p className="mb-4">{shown.because} It opens when the server is back.</p>
          <Link className={buttonLook()} href="/">
            To the yard
          </Link>
        </main>
      </>
    );
  switch (page.page) {
    case 'waits':
      return <WhatWaits />;
    case 'yard':
      return (
        <>
          <TopBar here="/">
            <h1 className="text-lg font-bold text-ink">Yard</h1>
          </TopBar>
          <Yard yard={page.yard} steps={null} />
        </>
      );
    case 'job':
      return (
        <>
          <TopBar jobId={page.view.job.id}>
            <UnitHeading unit={page.view.unit} job={page.view.job} />
          </TopBar>
          <JobScreen key={page.view.job.id} view={page.view} />
        </>
      );
    case 'circuits':
      return (
        <>
          <TopBar jobId={page.view.job.id}>
            <UnitHeading unit={page.view.unit} job={page.view.job} />
          </TopBar>
          <CircuitsOfJob view={page.view} />
        </>
      );
    case 'run':
      return (
        <>
          <TopBar jobId={page.view.job.id}>
            <UnitHeading unit={page.view.unit} job={page.view.job} complaint />
          </TopBar>
          <Bench key={page.view.id} view={page.view} />
        </>
      );
  }
}
