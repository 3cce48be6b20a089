"""The rules of the job: measures in, drafts, checks, patterns and paper out. No web, no database."""
