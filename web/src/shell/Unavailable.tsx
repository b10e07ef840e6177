import { Button } from 'antd';
import { isRouteErrorResponse, useRouteError } from 'react-router';

/** Instead of a page that could not be shown: its program was not to be had (the server is away, or newer), or it failed. */
export function Unavailable() {
  const error = useRouteError();
  const isMissing = error instanceof TypeError && /import|fetch/i.test(error.message);
  const reason = isRouteErrorResponse(error) ? error.statusText : error instanceof Error ? error.message : String(error);
  return (
    <div className="unavailable" role="alert">
      <h1>{isMissing ? 'This part of the program did not arrive.' : 'This page could not be shown.'}</h1>
      <p>
        {isMissing
          ? 'The server is away or has been renewed. What you changed is kept; reload the page to go on.'
          : 'What you changed is kept; reload the page to go on.'}
      </p>
      {!isMissing && <p className="soft">{reason}</p>}
      <Button type="primary" onClick={() => window.location.reload()}>
        Reload
      </Button>
    </div>
  );
}
