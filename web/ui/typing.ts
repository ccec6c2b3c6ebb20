/** As long as this between two letters is no typing: 250 ms are 48 words a minute, and most who write are faster. */
export const TYPING_MILLIS = 250;
