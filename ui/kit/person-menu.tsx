'use client';
import { tr } from '../../core/locale/translate';
import { Languages, LogOut, User, UserPlus } from 'lucide-react';
import dynamic from 'next/dynamic';
import { DropdownMenu } from 'radix-ui';
import { useState } from 'react';
import { useOnClient } from './on-client';
import { useSession } from './session';

const ChooseLocale = dynamic(() => import('../locale/choose-locale').then((m) => m.ChooseLocale));

const item = 'flex min-h-12 cursor-default items-center gap-2 rounded-lg px-3 outline-none data-[highlighted]:bg-panel';

/** Who is at the bench. Two taps put somebody else there who is signed in on this device. */
export function PersonMenu() {
  const { name, onDevice, switchTo, signOut, askToSignIn } = useSession();
  const onClient = useOnClient();
  const [isChoosing, setChoosing] = useState(false);
  if (name === null) return null;
  return (
    <>
      <DropdownMenu.Root>
        <DropdownMenu.Trigger
          disabled={!onClient}
          aria-label={tr`At the bench: ${name}. Switch person`}
          className="flex min-h-11 max-w-44 items-center gap-1.5 rounded-lg border border-line bg-card px-2 text-ink"
        >
          <User size={18} aria-hidden="true" className="shrink-0" />
          <span className="truncate">{name}</span>
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content
            align="end"
            sideOffset={4}
            className="z-50 min-w-56 rounded-xl border border-line bg-card p-1 text-ink shadow-lg"
          >
            {onDevice
              .filter((n) => n !== name)
              .map((n) => (
                <DropdownMenu.Item key={n} className={item} onSelect={() => void switchTo(n)}>
                  <User size={18} aria-hidden="true" />
                  {n}
                </DropdownMenu.Item>
              ))}
            <DropdownMenu.Item className={item} onSelect={askToSignIn}>
              <UserPlus size={18} aria-hidden="true" />
              Another person signs in
            </DropdownMenu.Item>
            <DropdownMenu.Item className={item} onSelect={() => setChoosing(true)}>
              <Languages size={18} aria-hidden="true" />
              Numbers, units and language
            </DropdownMenu.Item>
            <DropdownMenu.Separator className="my-1 h-px bg-line" />
            <DropdownMenu.Item className={item} onSelect={() => void signOut()}>
              <LogOut size={18} aria-hidden="true" />
              Sign {name} out
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      {isChoosing && <ChooseLocale onClose={() => setChoosing(false)} />}
    </>
  );
}
