import { SPOKEN } from '../../../application/listening/words';
import { type Tone, type ToneName, TONES } from '../../../application/listening/tones';

let context: AudioContext | null = null;

/** Makes ready to sound, so that the first signal does not wait for it. */
export function wakeSound(): void {
  try {
    context ??= new AudioContext();
    if (context.state === 'suspended') void context.resume();
  } catch {
    // No sound here: all of it can be seen as well.
  }
}

/** Plays a signal at once. Browsers allow sound after the first click or key only. */
export function playTone(name: ToneName, volume: number): void {
  try {
    wakeSound();
    if (!context) return;
    let at = context.currentTime + 0.005;
    for (const [pitch_Hz, seconds] of TONES[name] as Tone) {
      if (pitch_Hz > 0) note(context, pitch_Hz, at, seconds, volume);
      at += seconds;
    }
  } catch {
    // No sound here: all of it can be seen as well.
  }
}

function note(audio: AudioContext, pitch_Hz: number, at: number, seconds: number, volume: number): void {
  const oscillator = new OscillatorNode(audio, { type: 'triangle', frequency: pitch_Hz });
  const gain = new GainNode(audio, { gain: 0 });
  // Rising and falling a little, so that it does not crack.
  gain.gain.setValueAtTime(0, at);
  gain.gain.linearRampToValueAtTime(volume, at + 0.008);
  gain.gain.setValueAtTime(volume, at + Math.max(0.01, seconds - 0.015));
  gain.gain.linearRampToValueAtTime(0, at + seconds);
  oscillator.connect(gain).connect(audio.destination);
  oscillator.start(at);
  oscillator.stop(at + seconds + 0.01);
}

/**
 * A voice of this device in the language of the words; `null`: it has none. A voice of the network would be
 * told the readings.
 */
export function localVoice(): SpeechSynthesisVoice | null {
  if (typeof speechSynthesis === 'undefined') return null;
  return speechSynthesis.getVoices().find((v) => v.localService && v.lang.startsWith(SPOKEN.language)) ?? null;
}

/** Says it, instead of what is still being said. */
export function speak(words: string, volume: number): void {
  const voice = localVoice();
  if (!voice) return;
  speechSynthesis.cancel();
  const utterance = new SpeechSynthesisUtterance(words);
  utterance.voice = voice;
  utterance.volume = volume;
  speechSynthesis.speak(utterance);
}
