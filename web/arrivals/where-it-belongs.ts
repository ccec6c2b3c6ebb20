import { useQuery } from '@tanstack/react-query';
import { useNavigate } from 'react-router';
import { may } from '#api/people.ts';
import { sayFailure } from '../api/client.ts';
import { meQuery, queryClient } from '../api/queries.ts';
import { toast } from '../ui/toast.ts';

/** Takes text that was brought to a screen which has no use for it to where it belongs; false for who may not gather. */
export function useWhereItBelongs(): (text: string) => boolean {
  const navigate = useNavigate();
  const { data: me } = useQuery(meQuery);
  return (text) => {
    if (!me || !may(me.role, 'gather') || text.trim() === '') return false;
    void whereItBelongs(text).then(
      (path) => path !== null && navigate(path),
      (error: unknown) => toast.error(sayFailure(error)),
    );
    return true;
  };
}

/**
 * Embed code and the addresses of known things are read under Embeds, any other address under Gather. Null for other
 * text. What reads it is only loaded for that.
 */
async function whereItBelongs(text: string): Promise<string | null> {
  const [{ readInText }, { pastedAddress }, { hostsQuery }] = await Promise.all([
    import('../embeds/in-text.ts'),
    import('../gather/pasted.ts'),
    import('../embeds/embed-queries.ts'),
  ]);
  const read = readInText(text, await queryClient.fetchQuery(hostsQuery));
  if (read.kind !== 'text') return `/embeds?${new URLSearchParams({ text })}`;
  const address = pastedAddress(text);
  return address === '' ? null : `/gather?${new URLSearchParams({ address })}`;
}
