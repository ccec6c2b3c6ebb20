import { Link } from 'react-router';
import { Empty } from '../ui/empty.tsx';

export function NotHere() {
  return (
    <Empty>
      <h1 className="mb-1 text-xl text-ink">There is nothing at this address</h1>
      <p>
        It may have been moved. <Link to="/">Back to the Desk</Link>
      </p>
    </Empty>
  );
}
