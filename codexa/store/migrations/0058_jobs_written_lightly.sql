-- When a job was written nobody reads: what it follows from has its own moment. When it began and ended is still kept,
-- which is what old jobs are deleted by.
DROP TRIGGER procrastinate_trigger_status_events_insert_v1 ON procrastinate_jobs;
DROP FUNCTION procrastinate_trigger_function_status_events_insert_v1();
