-- Settings of outputs, kept under a name for other documents.
CREATE TABLE kept_recipes (
  id text PRIMARY KEY,
  owner text NOT NULL REFERENCES owners (id),
  name text NOT NULL,
  output text NOT NULL,
  recipe jsonb NOT NULL,
  kept_at timestamptz NOT NULL DEFAULT now()
);
