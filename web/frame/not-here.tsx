import { Link } from 'react-router';

export function NotHere() {
  return (
    <div className="empty">
      <h1>There is nothing at this address</h1>
      <p>
        It may have been moved. <Link to="/">Back to the Desk</Link>
      </p>
    </div>
  );
}
