"""Follow-ups: kept with the response that sets them off, carried out by jobs, each once."""
