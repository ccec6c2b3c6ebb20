import { type ClassValue, clsx } from 'clsx';
import { extendTailwindMerge } from 'tailwind-merge';

/** The names of the theme that the helper cannot know by itself; see theme.css. */
const merge = extendTailwindMerge({
  extend: {
    theme: {
      text: ['tick', '2xs', 'xs', 'sm', 'base', 'md', 'lg', 'xl', '2xl', '3xl', '4xl', '5xl', 'mono'],
      'font-weight': ['normal', 'medium', 'semibold', 'strong', 'bold'],
      leading: ['none', 'heading', 'tight', 'snug', 'flat', 'body', 'normal'],
      spacing: ['bar', 'label'],
      shadow: ['card'],
    },
  },
});

/** Classes as one string; of two that say the same thing the later holds. */
export function cx(...classes: ClassValue[]): string {
  return merge(clsx(classes));
}
