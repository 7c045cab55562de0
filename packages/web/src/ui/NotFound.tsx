// A mistyped address says so, and shows the way on.
import { useEffect } from 'react';
import { Link, useLocation } from 'react-router';

export function NotFound({ what = 'There is nothing at this address' }: { what?: string }) {
  const { pathname } = useLocation();
  useEffect(() => {
    document.title = `${what} · Dusky Otter`;
  }, [what]);
  return (
    <>
      <h1 className="text-[20px] font-[620]">{what}</h1>
      <p className="my-3 max-w-[60ch] text-ink-2">
        <span className="font-figure break-all">{pathname}</span> may be mistyped, or what was there may be
        gone.
      </p>
      <Link to="/" className="btn btn-main">
        Sites and sets
      </Link>
    </>
  );
}
