'use client';
import { tr } from '../../core/locale/translate';
import { useEffect, useState } from 'react';

type Typed = HTMLInputElement | HTMLTextAreaElement;
interface Room {
  readonly left: number;
  readonly isCut: boolean;
  readonly x: number;
  readonly y: number;
}

/** From where on it is told: the last fifth of a field, and no more than so many characters. */
const LAST = 0.2;
const AT_MOST = 60;

const isTyped = (t: EventTarget | null): t is Typed =>
  (t instanceof HTMLInputElement || t instanceof HTMLTextAreaElement) && t.maxLength > 0;

/** Whether so much is left of a field that nobody has to be told. */
const isPlenty = (left: number, most: number): boolean => left > Math.min(AT_MOST, LAST * most);
/** What a field would hold if it took all of this. */
const lengthWith = (field: Typed, more: string): number =>
  field.value.length - ((field.selectionEnd ?? 0) - (field.selectionStart ?? 0)) + more.length;

/** Tells of any field how many characters it still takes, before it takes no more: no text is cut unsaid. */
export function RoomLeft() {
  const [room, setRoom] = useState<Room | null>(null);
  useEffect(() => {
    // The browser drops what does not fit, and says nothing.
    let isCut = false;
    const onPaste = ({ target, clipboardData }: ClipboardEvent): void => {
      isCut = isTyped(target) && lengthWith(target, clipboardData?.getData('text') ?? '') > target.maxLength;
    };
    const onInput = ({ target }: Event): void => {
      const wasCut = isCut;
      isCut = false;
      if (!isTyped(target)) return;
      const left = target.maxLength - target.value.length;
      const { left: x, bottom: y } = target.getBoundingClientRect();
      setRoom(wasCut || !isPlenty(left, target.maxLength) ? { left, isCut: wasCut, x, y } : null);
    };
    const onLeave = (): void => setRoom(null);
    document.addEventListener('paste', onPaste, true);
    document.addEventListener('input', onInput, true);
    document.addEventListener('focusout', onLeave, true);
    document.addEventListener('scroll', onLeave, true);
    return () => {
      document.removeEventListener('paste', onPaste, true);
      document.removeEventListener('input', onInput, true);
      document.removeEventListener('focusout', onLeave, true);
      document.removeEventListener('scroll', onLeave, true);
    };
  }, []);
  return (
    <p
      aria-live="polite"
      className={
        room
          ? 'pointer-events-none fixed z-50 rounded-b-lg border border-line bg-card px-2 text-sm font-semibold text-ochre'
          : 'sr-only'
      }
      style={room ? { left: room.x + 8, top: room.y } : undefined}
    >
      {room && (room.isCut ? tr`It was cut: ${room.left} characters left.` : tr`${room.left} characters left.`)}
    </p>
  );
}
