import { Link } from 'react-router';

export function NotHere() {
  return (
    <div className="empty">
      <h2>There is nothing at this address</h2>
      <p>
        It may have been moved. <Link to="/">Back to the Desk</Link>
      </p>
    </div>
  );
}
