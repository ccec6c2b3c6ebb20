import type { ReactNode, Ref } from 'react';
import { Card } from '../ui/card.tsx';
import { cx } from '../ui/cx.ts';

interface RulesCardProps {
  /** Also where a link to it leads. */
  readonly id: string;
  readonly title: string;
  readonly about: ReactNode;
  readonly className?: string;
  readonly heading?: Ref<HTMLHeadingElement>;
  readonly children: ReactNode;
}

/** One matter of the House rules: what it is called, what it is for, and its settings. */
export function RulesCard({ id, title, about, className, heading, children }: RulesCardProps) {
  return (
    <Card className={cx('px-4.5 pt-3.5 pb-4.5', className)} aria-labelledby={id}>
      <h2 className="text-lg" id={id} ref={heading}>
        {title}
      </h2>
      <p className="mb-3 text-soft">{about}</p>
      {children}
    </Card>
  );
}
