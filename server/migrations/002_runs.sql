CREATE TABLE runs (
  id text PRIMARY KEY,
  owner text NOT NULL REFERENCES owners (id),
  folio text NOT NULL REFERENCES folios (id) ON DELETE CASCADE,
  recipe text NOT NULL,
  output text NOT NULL,
  state text NOT NULL CHECK (state IN ('waiting', 'running', 'done', 'failed', 'cancelled')),
  cancel boolean NOT NULL DEFAULT false,
  pages_done integer NOT NULL DEFAULT 0,
  pages_total integer NOT NULL DEFAULT 0,
  input_hash text NOT NULL DEFAULT '',
  attempts integer NOT NULL DEFAULT 0,
  message text,
  advice text,
  counts jsonb,
  valid boolean,
  files jsonb,
  created_at timestamptz NOT NULL DEFAULT now(),
  heartbeat_at timestamptz,
  finished_at timestamptz
);
CREATE INDEX runs_folio ON runs (folio, recipe, created_at);
CREATE INDEX runs_open ON runs (state) WHERE state IN ('waiting', 'running');
