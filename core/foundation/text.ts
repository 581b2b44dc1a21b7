/** With a capital first letter, as at the beginning of a sentence; the rest stays. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** With a small first letter, as within a sentence. */
export const uncapital = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);
