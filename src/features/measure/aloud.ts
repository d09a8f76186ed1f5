const KEY = 'spiraxis-aloud';

/** Whether this browser has a voice of its own. */
export function canSpeak(): boolean {
  return typeof window !== 'undefined' && 'speechSynthesis' in window;
}

/** Whether tests are read aloud on this device; not unless somebody asked for it. */
export function keptAloud(): boolean {
  try {
    return canSpeak() && localStorage.getItem(KEY) === 'yes';
  } catch {
    // Storage that is refused holds no wish.
    return false;
  }
}

export function keepsAloud(wanted: boolean): void {
  try {
    if (wanted) localStorage.setItem(KEY, 'yes');
    else localStorage.removeItem(KEY);
  } catch {
    // It holds for this view then.
  }
}

/** Reads a sentence with the browser's own voice; what was being said stops. Nothing leaves the device that its own voice does not send. */
export function say(words: string): void {
  if (!canSpeak()) return;
  window.speechSynthesis.cancel();
  const utterance = new SpeechSynthesisUtterance(words);
  utterance.lang = 'en';
  window.speechSynthesis.speak(utterance);
}

export function hush(): void {
  if (canSpeak()) window.speechSynthesis.cancel();
}
