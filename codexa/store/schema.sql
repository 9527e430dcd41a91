CREATE SCHEMA ledgers;
CREATE EXTENSION IF NOT EXISTS btree_gin WITH SCHEMA public;
COMMENT ON EXTENSION btree_gin IS 'support for indexing common datatypes in GIN';
CREATE EXTENSION IF NOT EXISTS pg_trgm WITH SCHEMA public;
COMMENT ON EXTENSION pg_trgm IS 'text similarity measurement and index searching based on trigrams';
CREATE TYPE public.procrastinate_job_event_type AS ENUM (
    'deferred',
    'started',
    'deferred_for_retry',
    'failed',
    'succeeded',
    'cancelled',
    'abort_requested',
    'aborted',
    'scheduled',
    'retried'
);
CREATE TYPE public.procrastinate_job_status AS ENUM (
    'todo',
    'doing',
    'succeeded',
    'failed',
    'cancelled',
    'aborting',
    'aborted'
);
CREATE TYPE public.procrastinate_job_to_defer_v1 AS (
	queue_name character varying,
	task_name character varying,
	priority integer,
	lock text,
	queueing_lock text,
	args jsonb,
	scheduled_at timestamp with time zone
);
CREATE FUNCTION public.count_places() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
DECLARE
    name text := CASE WHEN TG_OP = 'DELETE' THEN OLD.name ELSE NEW.name END;
    more bigint := 0;
BEGIN
    IF TG_OP <> 'INSERT' AND OLD.released_at IS NULL THEN more := more - OLD.quantity; END IF;
    IF TG_OP <> 'DELETE' AND NEW.released_at IS NULL THEN more := more + NEW.quantity; END IF;
    IF more <> 0 THEN
        UPDATE record_taken SET taken = taken + more
        WHERE table_id = split_part(name, ':', 2)::uuid AND number = split_part(name, ':', 3)::integer
            AND column_id = split_part(name, ':', 4);
    END IF;
    RETURN NULL;
END $$;
CREATE FUNCTION public.home_team(of_form uuid) RETURNS uuid
    LANGUAGE sql STABLE
    AS $$
    SELECT coalesce(original.team_id, form.team_id)
    FROM form JOIN team ON team.id = form.team_id LEFT JOIN form AS original ON original.id = team.rehearsal_of
    WHERE form.id = of_form
$$;
CREATE FUNCTION public.is_hidden(of_form uuid, in_team uuid, from_person uuid) RETURNS boolean
    LANGUAGE sql STABLE
    AS $$
    SELECT EXISTS (
        SELECT FROM form_exception JOIN membership
            ON membership.person_id = form_exception.person_id AND membership.team_id = in_team
        WHERE form_exception.form_id = of_form AND form_exception.person_id = from_person
            AND form_exception.role = 'none' AND membership.role <> 'owner'
    )
$$;
CREATE FUNCTION public.note_for_ledger() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    INSERT INTO ledger_due (form_id, number) VALUES (OLD.form_id, OLD.number);
    RETURN NULL;
END
$$;
CREATE FUNCTION public.procrastinate_cancel_job_v1(job_id bigint, abort boolean, delete_job boolean) RETURNS bigint
    LANGUAGE plpgsql
    AS $$
DECLARE
    _job_id bigint;
BEGIN
    IF delete_job THEN
        DELETE FROM procrastinate_jobs
        WHERE id = job_id AND status = 'todo'
        RETURNING id INTO _job_id;
    END IF;
    IF _job_id IS NULL THEN
        IF abort THEN
            UPDATE procrastinate_jobs
            SET abort_requested = true,
                status = CASE status
                    WHEN 'todo' THEN 'cancelled'::procrastinate_job_status ELSE status
                END
            WHERE id = job_id AND status IN ('todo', 'doing')
            RETURNING id INTO _job_id;
        ELSE
            UPDATE procrastinate_jobs
            SET status = 'cancelled'::procrastinate_job_status
            WHERE id = job_id AND status = 'todo'
            RETURNING id INTO _job_id;
        END IF;
    END IF;
    RETURN _job_id;
END;
$$;
CREATE FUNCTION public.procrastinate_defer_jobs_v1(jobs public.procrastinate_job_to_defer_v1[]) RETURNS bigint[]
    LANGUAGE plpgsql
    AS $$
DECLARE
    job_ids bigint[];
BEGIN
    WITH inserted_jobs AS (
        INSERT INTO procrastinate_jobs (queue_name, task_name, priority, lock, queueing_lock, args, scheduled_at)
        SELECT (job).queue_name,
               (job).task_name,
               (job).priority,
               (job).lock,
               (job).queueing_lock,
               (job).args,
               (job).scheduled_at
        FROM unnest(jobs) AS job
        RETURNING id
    )
    SELECT array_agg(id) FROM inserted_jobs INTO job_ids;
    RETURN job_ids;
END;
$$;
CREATE FUNCTION public.procrastinate_defer_periodic_job_v2(_queue_name character varying, _lock character varying, _queueing_lock character varying, _task_name character varying, _priority integer, _periodic_id character varying, _defer_timestamp bigint, _args jsonb) RETURNS bigint
    LANGUAGE plpgsql
    AS $$
DECLARE
	_job_id bigint;
	_defer_id bigint;
BEGIN
    INSERT
        INTO procrastinate_periodic_defers (task_name, periodic_id, defer_timestamp)
        VALUES (_task_name, _periodic_id, _defer_timestamp)
        ON CONFLICT DO NOTHING
        RETURNING id into _defer_id;
    IF _defer_id IS NULL THEN
        RETURN NULL;
    END IF;
    UPDATE procrastinate_periodic_defers
        SET job_id = (
            SELECT COALESCE((
                SELECT unnest(procrastinate_defer_jobs_v1(
                    ARRAY[
                        ROW(
                            _queue_name,
                            _task_name,
                            _priority,
                            _lock,
                            _queueing_lock,
                            _args,
                            NULL::timestamptz
                        )
                    ]::procrastinate_job_to_defer_v1[]
                ))
            ), NULL)
        )
        WHERE id = _defer_id
        RETURNING job_id INTO _job_id;
    DELETE
        FROM procrastinate_periodic_defers
        USING (
            SELECT id
            FROM procrastinate_periodic_defers
            WHERE procrastinate_periodic_defers.task_name = _task_name
            AND procrastinate_periodic_defers.periodic_id = _periodic_id
            AND procrastinate_periodic_defers.defer_timestamp < _defer_timestamp
            ORDER BY id
            FOR UPDATE
        ) to_delete
        WHERE procrastinate_periodic_defers.id = to_delete.id;
    RETURN _job_id;
END;
$$;
CREATE TABLE public.procrastinate_jobs (
    id bigint NOT NULL,
    queue_name character varying(128) NOT NULL,
    task_name character varying(128) NOT NULL,
    priority integer DEFAULT 0 NOT NULL,
    lock text,
    queueing_lock text,
    args jsonb DEFAULT '{}'::jsonb NOT NULL,
    status public.procrastinate_job_status DEFAULT 'todo'::public.procrastinate_job_status NOT NULL,
    scheduled_at timestamp with time zone,
    attempts integer DEFAULT 0 NOT NULL,
    abort_requested boolean DEFAULT false NOT NULL,
    worker_id bigint,
    CONSTRAINT check_not_todo_abort_requested CHECK ((NOT ((status = 'todo'::public.procrastinate_job_status) AND (abort_requested = true))))
);
CREATE FUNCTION public.procrastinate_fetch_job_v2(target_queue_names character varying[], p_worker_id bigint) RETURNS public.procrastinate_jobs
    LANGUAGE plpgsql
    AS $$
DECLARE
	found_jobs procrastinate_jobs;
BEGIN
    WITH candidate AS (
        SELECT jobs.*
            FROM procrastinate_jobs AS jobs
            WHERE
                -- reject the job if its lock has earlier or higher priority jobs
                NOT EXISTS (
                    SELECT 1
                        FROM procrastinate_jobs AS other_jobs
                        WHERE
                            jobs.lock IS NOT NULL
                            AND other_jobs.lock = jobs.lock
                            AND (
                                -- job with same lock is already running
                                other_jobs.status = 'doing'
                                OR
                                -- job with same lock is waiting and has higher priority (or same priority but was queued first)
                                (
                                    other_jobs.status = 'todo'
                                    AND (
                                        other_jobs.priority > jobs.priority
                                        OR (
                                        other_jobs.priority = jobs.priority
                                        AND other_jobs.id < jobs.id
                                        )
                                    )
                                )
                            )
                )
                AND jobs.status = 'todo'
                AND (target_queue_names IS NULL OR jobs.queue_name = ANY( target_queue_names ))
                AND (jobs.scheduled_at IS NULL OR jobs.scheduled_at <= now())
            ORDER BY jobs.priority DESC, jobs.id ASC LIMIT 1
            FOR UPDATE OF jobs SKIP LOCKED
    )
    UPDATE procrastinate_jobs
        SET status = 'doing', worker_id = p_worker_id
        FROM candidate
        WHERE procrastinate_jobs.id = candidate.id
        RETURNING procrastinate_jobs.* INTO found_jobs;
 RETURN found_jobs;
END;
$$;
CREATE FUNCTION public.procrastinate_finish_job_v1(job_id bigint, end_status public.procrastinate_job_status, delete_job boolean) RETURNS void
    LANGUAGE plpgsql
    AS $$
DECLARE
    _job_id bigint;
BEGIN
    IF end_status NOT IN ('succeeded', 'failed', 'aborted') THEN
        RAISE 'End status should be either "succeeded", "failed" or "aborted" (job id: %)', job_id;
    END IF;
    IF delete_job THEN
        DELETE FROM procrastinate_jobs
        WHERE id = job_id AND status IN ('todo', 'doing')
        RETURNING id INTO _job_id;
    ELSE
        UPDATE procrastinate_jobs
        SET status = end_status,
            abort_requested = false,
            attempts = CASE status
                WHEN 'doing' THEN attempts + 1 ELSE attempts
            END
        WHERE id = job_id AND status IN ('todo', 'doing')
        RETURNING id INTO _job_id;
    END IF;
    IF _job_id IS NULL THEN
        RAISE 'Job was not found or not in "doing" or "todo" status (job id: %)', job_id;
    END IF;
END;
$$;
CREATE FUNCTION public.procrastinate_notify_queue_abort_job_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
DECLARE
    payload TEXT;
BEGIN
    SELECT json_build_object('type', 'abort_job_requested', 'job_id', NEW.id)::text INTO payload;
	PERFORM pg_notify('procrastinate_queue_v1#' || NEW.queue_name, payload);
	PERFORM pg_notify('procrastinate_any_queue_v1', payload);
	RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_notify_queue_job_inserted_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
DECLARE
    payload TEXT;
BEGIN
    SELECT json_build_object('type', 'job_inserted', 'job_id', NEW.id)::text INTO payload;
	PERFORM pg_notify('procrastinate_queue_v1#' || NEW.queue_name, payload);
	PERFORM pg_notify('procrastinate_any_queue_v1', payload);
	RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_prune_stalled_workers_v1(seconds_since_heartbeat double precision) RETURNS TABLE(worker_id bigint)
    LANGUAGE plpgsql
    AS $$
BEGIN
    RETURN QUERY
    DELETE FROM procrastinate_workers
    WHERE last_heartbeat < NOW() - (seconds_since_heartbeat || 'SECOND')::INTERVAL
    RETURNING procrastinate_workers.id;
END;
$$;
CREATE FUNCTION public.procrastinate_register_worker_v1() RETURNS TABLE(worker_id bigint)
    LANGUAGE plpgsql
    AS $$
BEGIN
    RETURN QUERY
    INSERT INTO procrastinate_workers DEFAULT VALUES
    RETURNING procrastinate_workers.id;
END;
$$;
CREATE FUNCTION public.procrastinate_retry_job_v1(job_id bigint, retry_at timestamp with time zone, new_priority integer, new_queue_name character varying, new_lock character varying) RETURNS void
    LANGUAGE plpgsql
    AS $$
DECLARE
    _job_id bigint;
    _abort_requested boolean;
BEGIN
    SELECT abort_requested FROM procrastinate_jobs
    WHERE id = job_id AND status = 'doing'
    FOR UPDATE
    INTO _abort_requested;
    IF _abort_requested THEN
        UPDATE procrastinate_jobs
        SET status = 'failed'::procrastinate_job_status
        WHERE id = job_id AND status = 'doing'
        RETURNING id INTO _job_id;
    ELSE
        UPDATE procrastinate_jobs
        SET status = 'todo'::procrastinate_job_status,
            attempts = attempts + 1,
            scheduled_at = retry_at,
            priority = COALESCE(new_priority, priority),
            queue_name = COALESCE(new_queue_name, queue_name),
            lock = COALESCE(new_lock, lock)
        WHERE id = job_id AND status = 'doing'
        RETURNING id INTO _job_id;
    END IF;
    IF _job_id IS NULL THEN
        RAISE 'Job was not found or not in "doing" status (job id: %)', job_id;
    END IF;
END;
$$;
CREATE FUNCTION public.procrastinate_retry_job_v2(job_id bigint, retry_at timestamp with time zone, new_priority integer, new_queue_name character varying, new_lock character varying) RETURNS void
    LANGUAGE plpgsql
    AS $$
DECLARE
    _job_id bigint;
    _abort_requested boolean;
    _current_status procrastinate_job_status;
BEGIN
    SELECT status, abort_requested FROM procrastinate_jobs
    WHERE id = job_id AND status IN ('doing', 'failed')
    FOR UPDATE
    INTO _current_status, _abort_requested;
    IF _current_status = 'doing' AND _abort_requested THEN
        UPDATE procrastinate_jobs
        SET status = 'failed'::procrastinate_job_status
        WHERE id = job_id AND status = 'doing'
        RETURNING id INTO _job_id;
    ELSE
        UPDATE procrastinate_jobs
        SET status = 'todo'::procrastinate_job_status,
            attempts = attempts + 1,
            scheduled_at = retry_at,
            priority = COALESCE(new_priority, priority),
            queue_name = COALESCE(new_queue_name, queue_name),
            lock = COALESCE(new_lock, lock)
        WHERE id = job_id AND status IN ('doing', 'failed')
        RETURNING id INTO _job_id;
    END IF;
    IF _job_id IS NULL THEN
        RAISE 'Job was not found or has an invalid status to retry (job id: %)', job_id;
    END IF;
END;
$$;
CREATE FUNCTION public.procrastinate_trigger_abort_requested_events_procedure_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    INSERT INTO procrastinate_events(job_id, type)
        VALUES (NEW.id, 'abort_requested'::procrastinate_job_event_type);
    RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_trigger_function_scheduled_events_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    INSERT INTO procrastinate_events(job_id, type, at)
        VALUES (NEW.id, 'scheduled'::procrastinate_job_event_type, NEW.scheduled_at);
	RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_trigger_function_status_events_update_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    WITH t AS (
        SELECT CASE
            WHEN OLD.status = 'todo'::procrastinate_job_status
                AND NEW.status = 'doing'::procrastinate_job_status
                THEN 'started'::procrastinate_job_event_type
            WHEN OLD.status = 'doing'::procrastinate_job_status
                AND NEW.status = 'todo'::procrastinate_job_status
                THEN 'deferred_for_retry'::procrastinate_job_event_type
            WHEN OLD.status = 'doing'::procrastinate_job_status
                AND NEW.status = 'failed'::procrastinate_job_status
                THEN 'failed'::procrastinate_job_event_type
            WHEN OLD.status = 'doing'::procrastinate_job_status
                AND NEW.status = 'succeeded'::procrastinate_job_status
                THEN 'succeeded'::procrastinate_job_event_type
            WHEN OLD.status = 'todo'::procrastinate_job_status
                AND (
                    NEW.status = 'cancelled'::procrastinate_job_status
                    OR NEW.status = 'failed'::procrastinate_job_status
                    OR NEW.status = 'succeeded'::procrastinate_job_status
                )
                THEN 'cancelled'::procrastinate_job_event_type
            WHEN OLD.status = 'doing'::procrastinate_job_status
                AND NEW.status = 'aborted'::procrastinate_job_status
                THEN 'aborted'::procrastinate_job_event_type
            WHEN OLD.status = 'failed'::procrastinate_job_status
                AND NEW.status = 'todo'::procrastinate_job_status
                THEN 'retried'::procrastinate_job_event_type
            ELSE NULL
        END as event_type
    )
    INSERT INTO procrastinate_events(job_id, type)
        SELECT NEW.id, t.event_type
        FROM t
        WHERE t.event_type IS NOT NULL;
	RETURN NEW;
END;
$$;
CREATE FUNCTION public.procrastinate_unlink_periodic_defers_v1() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    UPDATE procrastinate_periodic_defers
    SET job_id = NULL
    WHERE job_id = OLD.id;
    RETURN OLD;
END;
$$;
CREATE FUNCTION public.procrastinate_unregister_worker_v1(worker_id bigint) RETURNS void
    LANGUAGE plpgsql
    AS $$
BEGIN
    DELETE FROM procrastinate_workers
    WHERE id = worker_id;
END;
$$;
CREATE FUNCTION public.procrastinate_update_heartbeat_v1(worker_id bigint) RETURNS void
    LANGUAGE plpgsql
    AS $$
BEGIN
    UPDATE procrastinate_workers
    SET last_heartbeat = NOW()
    WHERE id = worker_id;
END;
$$;
CREATE FUNCTION public.refuse_edition_change() RETURNS trigger
    LANGUAGE plpgsql
    AS $$
BEGIN
    -- A deleted person may be forgotten; what was published may not change.
    IF (NEW.form_id, NEW.number, NEW.definition, NEW.published_at)
        IS DISTINCT FROM (OLD.form_id, OLD.number, OLD.definition, OLD.published_at) THEN
        RAISE EXCEPTION 'Edition % can not be changed; publish a new one.', OLD.number;
    END IF;
    RETURN NEW;
END $$;
CREATE TABLE public.account (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    team_id uuid,
    provider text NOT NULL,
    name text NOT NULL,
    public_key text NOT NULL,
    secret bytea NOT NULL,
    last_four text NOT NULL,
    hook_secret bytea,
    cards text[] DEFAULT '{}'::text[] NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.address_change (
    person_id uuid NOT NULL,
    email text NOT NULL,
    email_folded text NOT NULL,
    old_digest bytea DEFAULT '\x'::bytea NOT NULL,
    new_digest bytea DEFAULT '\x'::bytea NOT NULL,
    old_confirmed boolean DEFAULT false NOT NULL,
    new_confirmed boolean DEFAULT false NOT NULL,
    expires_at timestamp with time zone NOT NULL
);
CREATE TABLE public.api_key (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    team_id uuid NOT NULL,
    form_id uuid,
    name text NOT NULL,
    digest bytea NOT NULL,
    rights text[] NOT NULL,
    made_by uuid,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    last_used_at timestamp with time zone,
    ended_at timestamp with time zone
);
CREATE TABLE public.approval (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    follow_up text NOT NULL,
    moment text NOT NULL,
    name text NOT NULL,
    subject text NOT NULL,
    state text DEFAULT 'asked'::text NOT NULL,
    at_step integer DEFAULT 0 NOT NULL,
    asked_at timestamp with time zone DEFAULT now() NOT NULL,
    ended_at timestamp with time zone,
    CONSTRAINT approval_state_check CHECK ((state = ANY (ARRAY['asked'::text, 'asked back'::text, 'approved'::text, 'denied'::text, 'withdrawn'::text])))
);
CREATE TABLE public.approval_decider (
    id bigint NOT NULL,
    approval_id uuid NOT NULL,
    "position" integer NOT NULL,
    person_id uuid,
    group_code text,
    address text,
    stands_in boolean DEFAULT false NOT NULL,
    approved_at timestamp with time zone,
    approved_by uuid
);
ALTER TABLE public.approval_decider ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.approval_decider_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.approval_step (
    approval_id uuid NOT NULL,
    "position" integer NOT NULL,
    name text NOT NULL,
    every boolean NOT NULL,
    hours integer,
    remind integer,
    due_at timestamp with time zone
);
CREATE TABLE public.audit_entry (
    id bigint NOT NULL,
    team_id uuid NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    person_id uuid,
    person_name text NOT NULL,
    kind text NOT NULL,
    about jsonb DEFAULT '{}'::jsonb NOT NULL
);
ALTER TABLE public.audit_entry ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.audit_entry_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.brand (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    team_id uuid NOT NULL,
    name text NOT NULL,
    look jsonb NOT NULL,
    changed_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT brand_name_check CHECK ((name <> ''::text))
);
CREATE TABLE public.bulk (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    form_id uuid NOT NULL,
    person_id uuid,
    does text NOT NULL,
    value text DEFAULT ''::text NOT NULL,
    numbers integer[] NOT NULL,
    place integer DEFAULT 0 NOT NULL,
    changed integer[] DEFAULT '{}'::integer[] NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    ended_at timestamp with time zone,
    CONSTRAINT bulk_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'done'::text, 'stopped'::text])))
);
CREATE TABLE public.calendar (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    team_id uuid NOT NULL,
    name text NOT NULL,
    address text NOT NULL,
    user_name text NOT NULL,
    password bytea NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.calendar_entry (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    follow_up text NOT NULL,
    calendar_id uuid NOT NULL,
    uid text NOT NULL,
    sequence integer NOT NULL
);
CREATE TABLE public.claim (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    name text NOT NULL,
    quantity integer NOT NULL,
    released_at timestamp with time zone,
    waiting_since timestamp with time zone,
    CONSTRAINT claim_quantity_check CHECK ((quantity > 0))
);
CREATE TABLE public.claimable (
    form_id uuid NOT NULL,
    name text NOT NULL,
    taken bigint NOT NULL,
    capacity bigint,
    closed boolean DEFAULT false NOT NULL,
    CONSTRAINT claimable_taken_check CHECK ((taken >= 0))
);
CREATE TABLE public.data_table (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    team_id uuid NOT NULL,
    name text NOT NULL,
    definition jsonb NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    last_number integer DEFAULT 0 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    changed_at timestamp with time zone DEFAULT now() NOT NULL,
    deleted_at timestamp with time zone,
    seen_by text DEFAULT 'reviewer'::text NOT NULL,
    changed_by text DEFAULT 'editor'::text NOT NULL,
    seen_groups text[] DEFAULT '{}'::text[] NOT NULL,
    changed_groups text[] DEFAULT '{}'::text[] NOT NULL,
    CONSTRAINT data_table_changed_by_check CHECK ((changed_by = ANY (ARRAY['reviewer'::text, 'editor'::text, 'owner'::text]))),
    CONSTRAINT data_table_seen_by_check CHECK ((seen_by = ANY (ARRAY['viewer'::text, 'reviewer'::text, 'editor'::text, 'owner'::text])))
);
CREATE TABLE public.delivery (
    run_id bigint NOT NULL,
    try integer NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    request jsonb NOT NULL,
    reply jsonb
);
CREATE TABLE public.departure (
    team_id uuid NOT NULL,
    person_id uuid NOT NULL,
    successor_id uuid,
    left_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.desk_view (
    team_id uuid NOT NULL,
    person_id uuid NOT NULL,
    name text NOT NULL,
    content jsonb NOT NULL,
    CONSTRAINT desk_view_name_check CHECK (((length(name) >= 1) AND (length(name) <= 60)))
);
CREATE TABLE public.edition (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    definition jsonb NOT NULL,
    revision integer NOT NULL,
    published_at timestamp with time zone DEFAULT now() NOT NULL,
    published_by uuid,
    digest text GENERATED ALWAYS AS (md5((definition)::text)) STORED,
    note text DEFAULT ''::text NOT NULL,
    CONSTRAINT edition_number_check CHECK ((number > 0))
);
CREATE TABLE public.errand (
    id bigint NOT NULL,
    team_id uuid,
    kind text NOT NULL,
    about jsonb DEFAULT '{}'::jsonb NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    tries integer DEFAULT 0 NOT NULL,
    result text DEFAULT ''::text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    ended_at timestamp with time zone,
    CONSTRAINT errand_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'done'::text, 'failed'::text])))
);
ALTER TABLE public.errand ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.errand_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.event (
    id bigint NOT NULL,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    kind text NOT NULL,
    key text DEFAULT ''::text NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    who text NOT NULL,
    person_id uuid,
    data jsonb DEFAULT '{}'::jsonb NOT NULL,
    CONSTRAINT event_who_check CHECK ((who = ANY (ARRAY['visitor'::text, 'person'::text, 'bank'::text, 'clock'::text])))
);
ALTER TABLE public.event ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.event_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.export_file (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    form_id uuid NOT NULL,
    person_id uuid,
    name text NOT NULL,
    about jsonb NOT NULL,
    rows integer DEFAULT 0 NOT NULL,
    size bigint DEFAULT 0 NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    result text DEFAULT ''::text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT export_file_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'done'::text, 'failed'::text])))
);
CREATE TABLE public.feed (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    form_id uuid NOT NULL,
    view_id uuid NOT NULL,
    digest bytea NOT NULL,
    sealed bytea NOT NULL,
    made_by uuid,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    last_fetched_at timestamp with time zone,
    fetches bigint DEFAULT 0 NOT NULL
);
CREATE TABLE public.file_import (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    form_id uuid,
    person_id uuid,
    name text NOT NULL,
    edition integer,
    lines jsonb NOT NULL,
    count integer NOT NULL,
    place integer DEFAULT 0 NOT NULL,
    kept integer DEFAULT 0 NOT NULL,
    refused jsonb DEFAULT '[]'::jsonb NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    ended_at timestamp with time zone,
    table_id uuid,
    key_column text DEFAULT ''::text NOT NULL,
    CONSTRAINT file_import_of_one CHECK ((num_nonnulls(form_id, table_id) = 1)),
    CONSTRAINT response_import_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'done'::text, 'stopped'::text])))
);
CREATE TABLE public.form (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    team_id uuid NOT NULL,
    name text NOT NULL,
    slug text NOT NULL,
    sites text[] DEFAULT '{}'::text[] NOT NULL,
    draft jsonb NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    live_edition integer,
    changed_at timestamp with time zone DEFAULT now() NOT NULL,
    changed_by uuid,
    deleted_at timestamp with time zone,
    draft_digest text GENERATED ALWAYS AS (md5((draft)::text)) STORED,
    unreadable text,
    failures_told_at timestamp with time zone,
    slug_chosen boolean DEFAULT false NOT NULL,
    access jsonb DEFAULT '{}'::jsonb NOT NULL,
    sharing jsonb DEFAULT '{}'::jsonb NOT NULL,
    password_hash text,
    statuses jsonb DEFAULT '[]'::jsonb NOT NULL,
    retention jsonb DEFAULT '{}'::jsonb NOT NULL,
    tables_changed text,
    calendar_turn integer DEFAULT 0 NOT NULL,
    calendar_open boolean DEFAULT false NOT NULL,
    owner_id uuid,
    labels text[] DEFAULT '{}'::text[] NOT NULL,
    CONSTRAINT form_labels_check CHECK ((cardinality(labels) <= 20)),
    CONSTRAINT form_slug_check CHECK ((slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$'::text))
);
CREATE TABLE public.form_exception (
    form_id uuid NOT NULL,
    person_id uuid NOT NULL,
    role text NOT NULL,
    CONSTRAINT form_exception_role_check CHECK ((role = ANY (ARRAY['none'::text, 'viewer'::text, 'reviewer'::text, 'editor'::text])))
);
CREATE TABLE public.form_outline (
    form_id uuid NOT NULL,
    revision integer NOT NULL,
    parts jsonb NOT NULL,
    words text NOT NULL
);
CREATE TABLE public.former_slug (
    team_id uuid NOT NULL,
    slug text NOT NULL,
    form_id uuid NOT NULL
);
CREATE TABLE public.invitation (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    team_id uuid NOT NULL,
    email text NOT NULL,
    email_folded text NOT NULL,
    role text NOT NULL,
    token_digest bytea DEFAULT '\x'::bytea NOT NULL,
    invited_by uuid,
    invited_at timestamp with time zone DEFAULT now() NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    CONSTRAINT invitation_role_check CHECK ((role = ANY (ARRAY['owner'::text, 'editor'::text, 'reviewer'::text, 'viewer'::text])))
);
CREATE TABLE public.kept_answers (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    digest bytea NOT NULL,
    entered jsonb NOT NULL,
    standing jsonb NOT NULL,
    visit text NOT NULL,
    version integer DEFAULT 1 NOT NULL,
    kept_at timestamp with time zone DEFAULT now() NOT NULL,
    until timestamp with time zone NOT NULL,
    mails integer DEFAULT 0 NOT NULL,
    member_digest bytea
);
CREATE TABLE public.known_network (
    person_id uuid NOT NULL,
    network text NOT NULL,
    seen_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.ledger (
    form_id uuid NOT NULL,
    columns jsonb DEFAULT '[]'::jsonb NOT NULL,
    upto integer DEFAULT 0 NOT NULL,
    wanted text[] DEFAULT '{}'::text[] NOT NULL,
    filling_since timestamp with time zone,
    settled bigint DEFAULT 0 NOT NULL
);
CREATE TABLE public.ledger_due (
    id bigint NOT NULL,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL
);
ALTER TABLE public.ledger_due ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.ledger_due_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.link_batch (
    id bigint NOT NULL,
    form_id uuid NOT NULL,
    name text NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    made_by uuid
);
ALTER TABLE public.link_batch ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.link_batch_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.link_mail (
    link_id bigint NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    result text DEFAULT ''::text NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT link_mail_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'sent'::text, 'failed'::text])))
);
CREATE TABLE public.member (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    table_id uuid NOT NULL,
    number integer NOT NULL,
    password_hash text DEFAULT ''::text NOT NULL,
    confirmed_at timestamp with time zone,
    invited_at timestamp with time zone
);
CREATE TABLE public.member_link (
    token_digest bytea NOT NULL,
    kind text NOT NULL,
    member_id uuid NOT NULL,
    email text DEFAULT ''::text NOT NULL,
    back text DEFAULT ''::text NOT NULL,
    asked_digest bytea,
    code_mark text DEFAULT ''::text NOT NULL,
    tries integer DEFAULT 0 NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    CONSTRAINT member_link_kind_check CHECK ((kind = ANY (ARRAY['sign in'::text, 'address'::text])))
);
CREATE TABLE public.member_session (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    token_digest bytea NOT NULL,
    member_id uuid NOT NULL,
    csrf_token text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    seen_at timestamp with time zone DEFAULT now() NOT NULL,
    expires_at timestamp with time zone NOT NULL
);
CREATE TABLE public.membership (
    team_id uuid NOT NULL,
    person_id uuid NOT NULL,
    role text NOT NULL,
    digest text DEFAULT 'none'::text NOT NULL,
    digest_until timestamp with time zone,
    CONSTRAINT membership_digest_check CHECK ((digest = ANY (ARRAY['none'::text, 'daily'::text, 'weekly'::text]))),
    CONSTRAINT membership_role_check CHECK ((role = ANY (ARRAY['owner'::text, 'editor'::text, 'reviewer'::text, 'viewer'::text])))
);
CREATE TABLE public.response (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    edition integer NOT NULL,
    received_at timestamp with time zone DEFAULT now() NOT NULL,
    answers jsonb NOT NULL,
    computed jsonb NOT NULL,
    idempotency_key text NOT NULL,
    content_digest bytea NOT NULL,
    path text[] DEFAULT '{}'::text[] NOT NULL,
    confirmation text,
    stage text DEFAULT 'complete'::text NOT NULL,
    payment text DEFAULT 'none'::text NOT NULL,
    decision text DEFAULT 'none'::text NOT NULL,
    status text,
    test boolean DEFAULT false NOT NULL,
    held boolean DEFAULT false NOT NULL,
    told jsonb NOT NULL,
    came jsonb DEFAULT '{}'::jsonb NOT NULL,
    sealed_link bigint,
    tags text[] DEFAULT '{}'::text[] NOT NULL,
    person_id uuid,
    member_id uuid,
    filled_by uuid,
    booking text DEFAULT 'none'::text NOT NULL,
    at_part text DEFAULT 'none'::text NOT NULL,
    CONSTRAINT response_booking_check CHECK ((booking = ANY (ARRAY['none'::text, 'booked'::text, 'waiting'::text, 'cancelled'::text]))),
    CONSTRAINT response_decision_check CHECK ((decision = ANY (ARRAY['none'::text, 'asked'::text, 'approved'::text, 'denied'::text]))),
    CONSTRAINT response_payment_check CHECK ((payment = ANY (ARRAY['none'::text, 'due'::text, 'pending'::text, 'paid'::text, 'failed'::text, 'part refunded'::text, 'refunded'::text]))),
    CONSTRAINT response_stage_check CHECK ((stage = ANY (ARRAY['kept'::text, 'waiting'::text, 'complete'::text, 'expired'::text, 'removed'::text])))
);
CREATE TABLE public.run (
    id bigint NOT NULL,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    follow_up text NOT NULL,
    name text NOT NULL,
    moment text NOT NULL,
    again integer DEFAULT 0 NOT NULL,
    kind text NOT NULL,
    content jsonb NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    tries integer DEFAULT 0 NOT NULL,
    result text DEFAULT ''::text NOT NULL,
    asked_by uuid,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    ended_at timestamp with time zone,
    due_at timestamp with time zone,
    CONSTRAINT run_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'done'::text, 'failed'::text])))
);
CREATE VIEW public.open_run AS
 SELECT run.id,
    run.form_id,
    run.number,
    run.follow_up,
    run.name,
    run.moment,
    run.again,
    run.kind,
    run.content,
    run.state,
    run.tries,
    run.result,
    run.created_at,
    run.ended_at,
    run.asked_by,
    run.due_at
   FROM (public.run
     JOIN public.response ON (((response.form_id = run.form_id) AND (response.number = run.number))))
  WHERE ((response.stage <> 'removed'::text) AND (((run.state = 'waiting'::text) AND ((run.due_at IS NULL) OR (run.due_at < now()))) OR ((run.state = 'failed'::text) AND (run.ended_at > (now() - '30 days'::interval)) AND (NOT (EXISTS ( SELECT
           FROM public.run later
          WHERE (((later.form_id = run.form_id) AND (later.number = run.number) AND (later.follow_up = run.follow_up) AND (later.moment = run.moment)) AND (later.again > run.again))))))));
CREATE TABLE public.option_list (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    team_id uuid NOT NULL,
    name text NOT NULL,
    options jsonb NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    changed_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.password_link (
    token_digest bytea NOT NULL,
    person_id uuid NOT NULL,
    expires_at timestamp with time zone NOT NULL
);
CREATE TABLE public.payment (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    account_id uuid NOT NULL,
    amount bigint NOT NULL,
    currency text NOT NULL,
    payer jsonb NOT NULL,
    cards text[] DEFAULT '{}'::text[] NOT NULL,
    state text DEFAULT 'due'::text NOT NULL,
    reason text DEFAULT ''::text NOT NULL,
    card text DEFAULT ''::text NOT NULL,
    refunded bigint DEFAULT 0 NOT NULL,
    provider_id text,
    page text DEFAULT ''::text NOT NULL,
    due_until timestamp with time zone NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    changed_at timestamp with time zone DEFAULT now() NOT NULL,
    turn integer DEFAULT 0 NOT NULL,
    day date,
    receipt integer,
    CONSTRAINT payment_amount_check CHECK ((amount >= 0)),
    CONSTRAINT payment_check CHECK (((refunded >= 0) AND (refunded <= amount))),
    CONSTRAINT payment_state_check CHECK ((state = ANY (ARRAY['due'::text, 'paid'::text, 'failed'::text, 'expired'::text]))),
    CONSTRAINT payment_turn_check CHECK ((turn >= 0))
);
CREATE TABLE public.person (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    email text NOT NULL,
    name text NOT NULL,
    password_hash text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    email_folded text NOT NULL,
    language text DEFAULT 'en'::text NOT NULL
);
CREATE TABLE public.person_in_group (
    team_id uuid NOT NULL,
    code text NOT NULL,
    person_id uuid NOT NULL
);
CREATE TABLE public.picture (
    id uuid NOT NULL,
    team_id uuid NOT NULL,
    name text NOT NULL,
    media_type text NOT NULL,
    size bigint NOT NULL,
    width integer NOT NULL,
    height integer NOT NULL,
    stored_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT picture_size_check CHECK ((size > 0))
);
CREATE TABLE public.plan (
    payment_id uuid NOT NULL,
    amount bigint NOT NULL,
    every integer NOT NULL,
    unit text NOT NULL,
    times integer,
    starts_on date NOT NULL,
    paid_now boolean NOT NULL,
    words text NOT NULL,
    state text DEFAULT 'waiting'::text NOT NULL,
    next_on date,
    stopped_by uuid,
    looked_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT plan_amount_check CHECK ((amount > 0)),
    CONSTRAINT plan_every_check CHECK ((every > 0)),
    CONSTRAINT plan_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'running'::text, 'stopping'::text, 'stopped'::text, 'ended'::text]))),
    CONSTRAINT plan_times_check CHECK ((times > 0)),
    CONSTRAINT plan_unit_check CHECK ((unit = ANY (ARRAY['day'::text, 'week'::text, 'month'::text, 'year'::text])))
);
CREATE TABLE public.presence (
    form_id uuid NOT NULL,
    tab text NOT NULL,
    person_id uuid NOT NULL,
    area text NOT NULL,
    part text,
    seen_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.procrastinate_events (
    id bigint NOT NULL,
    job_id bigint NOT NULL,
    type public.procrastinate_job_event_type,
    at timestamp with time zone DEFAULT now()
);
CREATE SEQUENCE public.procrastinate_events_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.procrastinate_events_id_seq OWNED BY public.procrastinate_events.id;
CREATE SEQUENCE public.procrastinate_jobs_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.procrastinate_jobs_id_seq OWNED BY public.procrastinate_jobs.id;
CREATE TABLE public.procrastinate_periodic_defers (
    id bigint NOT NULL,
    task_name character varying(128) NOT NULL,
    defer_timestamp bigint,
    job_id bigint,
    periodic_id character varying(128) DEFAULT ''::character varying NOT NULL
);
CREATE SEQUENCE public.procrastinate_periodic_defers_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1;
ALTER SEQUENCE public.procrastinate_periodic_defers_id_seq OWNED BY public.procrastinate_periodic_defers.id;
CREATE TABLE public.procrastinate_workers (
    id bigint NOT NULL,
    last_heartbeat timestamp with time zone DEFAULT now() NOT NULL
);
ALTER TABLE public.procrastinate_workers ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.procrastinate_workers_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE UNLOGGED TABLE public.rate (
    subject text NOT NULL,
    count bigint NOT NULL,
    ends_at timestamp with time zone NOT NULL
);
CREATE TABLE public.record (
    table_id uuid NOT NULL,
    number integer NOT NULL,
    kept jsonb NOT NULL,
    name text NOT NULL,
    words text NOT NULL,
    revision integer DEFAULT 1 NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    changed_at timestamp with time zone DEFAULT now() NOT NULL,
    removed_at timestamp with time zone,
    keys text[],
    offered boolean DEFAULT true NOT NULL,
    published_at timestamp with time zone
);
CREATE TABLE public.record_change (
    id bigint NOT NULL,
    table_id uuid NOT NULL,
    number integer NOT NULL,
    kind text NOT NULL,
    before jsonb,
    person_id uuid,
    at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT record_change_kind_check CHECK ((kind = ANY (ARRAY['changed'::text, 'removed'::text, 'brought back'::text, 'published'::text, 'taken back'::text])))
);
ALTER TABLE public.record_change ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.record_change_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.record_file (
    id uuid NOT NULL,
    table_id uuid NOT NULL,
    number integer NOT NULL,
    name text NOT NULL,
    media_type text NOT NULL,
    size bigint NOT NULL,
    has_thumbnail boolean NOT NULL,
    stored_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT record_file_size_check CHECK ((size > 0))
);
CREATE TABLE public.record_once (
    table_id uuid NOT NULL,
    column_id text NOT NULL,
    value text NOT NULL,
    number integer NOT NULL
);
CREATE TABLE public.record_origin (
    table_id uuid NOT NULL,
    number integer NOT NULL,
    form_id uuid NOT NULL,
    response_number integer NOT NULL,
    kind text NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT record_origin_kind_check CHECK ((kind = ANY (ARRAY['made'::text, 'changed'::text])))
);
CREATE TABLE public.record_reference (
    table_id uuid NOT NULL,
    number integer NOT NULL,
    column_id text NOT NULL,
    to_table uuid NOT NULL,
    to_number integer NOT NULL
);
CREATE TABLE public.record_taken (
    table_id uuid NOT NULL,
    number integer NOT NULL,
    column_id text NOT NULL,
    taken bigint NOT NULL,
    CONSTRAINT record_taken_taken_check CHECK ((taken >= 0))
);
CREATE TABLE public.recovery_code (
    person_id uuid NOT NULL,
    mark text NOT NULL
);
CREATE TABLE public.refund (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    payment_id uuid NOT NULL,
    amount bigint NOT NULL,
    state text DEFAULT 'asked'::text NOT NULL,
    asked_by uuid,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT refund_amount_check CHECK ((amount > 0)),
    CONSTRAINT refund_state_check CHECK ((state = ANY (ARRAY['asked'::text, 'done'::text, 'refused'::text])))
);
CREATE TABLE public.response_counter (
    form_id uuid NOT NULL,
    last_number integer DEFAULT 0 NOT NULL,
    access_turn integer DEFAULT 0 NOT NULL,
    gone integer DEFAULT 0 NOT NULL
);
CREATE TABLE public.response_view (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    form_id uuid NOT NULL,
    name text NOT NULL,
    content jsonb NOT NULL,
    opens_first boolean DEFAULT false NOT NULL,
    made_by uuid,
    made_at timestamp with time zone DEFAULT now() NOT NULL
);
ALTER TABLE public.run ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.run_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.saved_state (
    form_id uuid NOT NULL,
    revision integer NOT NULL,
    draft jsonb NOT NULL,
    saved_at timestamp with time zone DEFAULT now() NOT NULL,
    saved_by uuid,
    name text DEFAULT ''::text NOT NULL,
    changes integer DEFAULT 1 NOT NULL,
    CONSTRAINT saved_state_name_check CHECK ((length(name) <= 100))
);
CREATE TABLE public.seal_key (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    secret bytea NOT NULL,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    ended_at timestamp with time zone
);
CREATE TABLE public.sealed_link (
    id bigint NOT NULL,
    batch_id bigint NOT NULL,
    form_id uuid NOT NULL,
    mark text NOT NULL,
    key integer NOT NULL,
    given jsonb NOT NULL,
    until timestamp with time zone,
    uses integer,
    email text DEFAULT ''::text NOT NULL,
    ended_at timestamp with time zone,
    CONSTRAINT sealed_link_uses_check CHECK ((uses > 0))
);
ALTER TABLE public.sealed_link ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.sealed_link_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.second_factor (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    person_id uuid NOT NULL,
    kind text NOT NULL,
    name text NOT NULL,
    secret bytea,
    last_step bigint DEFAULT 0 NOT NULL,
    credential bytea,
    public_key bytea,
    uses bigint DEFAULT 0 NOT NULL,
    confirmed_at timestamp with time zone,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT second_factor_kind_check CHECK ((kind = ANY (ARRAY['codes'::text, 'passkey'::text])))
);
CREATE TABLE public.session (
    token_digest bytea NOT NULL,
    person_id uuid NOT NULL,
    team_id uuid NOT NULL,
    csrf_token text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    seen_at timestamp with time zone DEFAULT now() NOT NULL,
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    program text DEFAULT ''::text NOT NULL
);
CREATE TABLE public.sign_in_step (
    token_digest bytea NOT NULL,
    person_id uuid,
    team_id uuid,
    challenge bytea,
    expires_at timestamp with time zone NOT NULL
);
CREATE TABLE public.sign_in_try (
    subject text NOT NULL,
    failures integer NOT NULL,
    tried_at timestamp with time zone NOT NULL,
    next_at timestamp with time zone NOT NULL
);
CREATE TABLE public.standing (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    part text NOT NULL,
    name text NOT NULL,
    groups text[] NOT NULL,
    sent_back_by text,
    remark text NOT NULL,
    by_name text NOT NULL,
    turn integer NOT NULL,
    since timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.task (
    id bigint NOT NULL,
    form_id uuid NOT NULL,
    number integer NOT NULL,
    run text NOT NULL,
    words text NOT NULL,
    person_id uuid,
    group_code text,
    address text,
    due_on date,
    made_at timestamp with time zone DEFAULT now() NOT NULL,
    done_at timestamp with time zone,
    done_by uuid,
    remark text DEFAULT ''::text NOT NULL
);
ALTER TABLE public.task ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.task_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.team (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    slug text NOT NULL,
    name text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    receipts integer DEFAULT 0 NOT NULL,
    members_table uuid,
    personal_of uuid,
    rehearsal_of uuid,
    rehearsed_by uuid,
    rehearsed_days integer DEFAULT 0 NOT NULL,
    rehearsed_as bigint,
    CONSTRAINT team_slug_check CHECK ((slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$'::text))
);
CREATE TABLE public.team_group (
    team_id uuid NOT NULL,
    code text NOT NULL,
    name text NOT NULL,
    CONSTRAINT team_group_code_check CHECK ((code <> ''::text)),
    CONSTRAINT team_group_name_check CHECK ((name <> ''::text))
);
CREATE TABLE public.upload (
    id uuid NOT NULL,
    form_id uuid NOT NULL,
    block_id text NOT NULL,
    name text NOT NULL,
    media_type text NOT NULL,
    size bigint NOT NULL,
    has_thumbnail boolean NOT NULL,
    stored_at timestamp with time zone DEFAULT now() NOT NULL,
    response_number integer,
    visit text DEFAULT ''::text NOT NULL,
    network text DEFAULT ''::text NOT NULL,
    CONSTRAINT upload_size_check CHECK ((size > 0))
);
CREATE TABLE public.visit (
    id uuid NOT NULL,
    form_id uuid NOT NULL,
    day date NOT NULL,
    edition integer NOT NULL,
    presentation text NOT NULL,
    way text NOT NULL,
    page text NOT NULL,
    link text NOT NULL,
    width text NOT NULL,
    seen_at timestamp with time zone NOT NULL,
    told_at timestamp with time zone NOT NULL,
    turn integer NOT NULL,
    started boolean NOT NULL,
    sent boolean NOT NULL,
    place text NOT NULL,
    field text NOT NULL,
    steps jsonb NOT NULL,
    wrong text[] NOT NULL,
    took smallint
);
CREATE TABLE public.visit_count (
    slice_id bigint NOT NULL,
    what text NOT NULL,
    part text NOT NULL,
    bucket smallint NOT NULL,
    number integer NOT NULL,
    CONSTRAINT visit_count_what_check CHECK ((what = ANY (ARRAY['reached'::text, 'left'::text, 'left_at'::text, 'wrong'::text, 'took'::text])))
);
CREATE VIEW public.visit_fact AS
 SELECT visit.id,
    'reached'::text AS what,
    step.key AS part,
    (step.value)::smallint AS bucket
   FROM public.visit,
    LATERAL jsonb_each_text(visit.steps) step(key, value)
UNION ALL
 SELECT visit.id,
    'wrong'::text AS what,
    unnest(visit.wrong) AS part,
    0 AS bucket
   FROM public.visit
UNION ALL
 SELECT visit.id,
    'left'::text AS what,
    visit.place AS part,
    0 AS bucket
   FROM public.visit
  WHERE ((NOT visit.sent) AND (visit.place <> ''::text) AND (visit.told_at < (now() - '00:30:00'::interval)))
UNION ALL
 SELECT visit.id,
    'left_at'::text AS what,
    visit.field AS part,
    0 AS bucket
   FROM public.visit
  WHERE ((NOT visit.sent) AND (visit.field <> ''::text) AND (visit.told_at < (now() - '00:30:00'::interval)))
UNION ALL
 SELECT visit.id,
    'took'::text AS what,
    ''::text AS part,
    visit.took AS bucket
   FROM public.visit
  WHERE (visit.sent AND (visit.took IS NOT NULL));
CREATE TABLE public.visit_slice (
    id bigint NOT NULL,
    form_id uuid NOT NULL,
    day date NOT NULL,
    edition integer NOT NULL,
    presentation text NOT NULL,
    way text NOT NULL,
    page text NOT NULL,
    link text NOT NULL,
    width text NOT NULL,
    seen integer NOT NULL,
    started integer NOT NULL,
    sent integer NOT NULL
);
ALTER TABLE public.visit_slice ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.visit_slice_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
CREATE TABLE public.went_live (
    id bigint NOT NULL,
    form_id uuid NOT NULL,
    edition integer NOT NULL,
    at timestamp with time zone DEFAULT now() NOT NULL,
    person_id uuid
);
ALTER TABLE public.went_live ALTER COLUMN id ADD GENERATED ALWAYS AS IDENTITY (
    SEQUENCE NAME public.went_live_id_seq
    START WITH 1
    INCREMENT BY 1
    NO MINVALUE
    NO MAXVALUE
    CACHE 1
);
ALTER TABLE ONLY public.procrastinate_events ALTER COLUMN id SET DEFAULT nextval('public.procrastinate_events_id_seq'::regclass);
ALTER TABLE ONLY public.procrastinate_jobs ALTER COLUMN id SET DEFAULT nextval('public.procrastinate_jobs_id_seq'::regclass);
ALTER TABLE ONLY public.procrastinate_periodic_defers ALTER COLUMN id SET DEFAULT nextval('public.procrastinate_periodic_defers_id_seq'::regclass);
ALTER TABLE ONLY public.account
    ADD CONSTRAINT account_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.address_change
    ADD CONSTRAINT address_change_pkey PRIMARY KEY (person_id);
ALTER TABLE ONLY public.api_key
    ADD CONSTRAINT api_key_digest_key UNIQUE (digest);
ALTER TABLE ONLY public.api_key
    ADD CONSTRAINT api_key_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.approval_decider
    ADD CONSTRAINT approval_decider_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.approval
    ADD CONSTRAINT approval_form_id_number_follow_up_moment_key UNIQUE (form_id, number, follow_up, moment);
ALTER TABLE ONLY public.approval
    ADD CONSTRAINT approval_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.approval_step
    ADD CONSTRAINT approval_step_pkey PRIMARY KEY (approval_id, "position");
ALTER TABLE ONLY public.audit_entry
    ADD CONSTRAINT audit_entry_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.brand
    ADD CONSTRAINT brand_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.brand
    ADD CONSTRAINT brand_team_id_name_key UNIQUE (team_id, name);
ALTER TABLE ONLY public.bulk
    ADD CONSTRAINT bulk_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.calendar_entry
    ADD CONSTRAINT calendar_entry_pkey PRIMARY KEY (form_id, number, follow_up);
ALTER TABLE ONLY public.calendar
    ADD CONSTRAINT calendar_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.calendar
    ADD CONSTRAINT calendar_team_id_name_key UNIQUE (team_id, name);
ALTER TABLE ONLY public.claim
    ADD CONSTRAINT claim_pkey PRIMARY KEY (form_id, number, name);
ALTER TABLE ONLY public.claimable
    ADD CONSTRAINT claimable_pkey PRIMARY KEY (form_id, name);
ALTER TABLE ONLY public.data_table
    ADD CONSTRAINT data_table_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.delivery
    ADD CONSTRAINT delivery_pkey PRIMARY KEY (run_id, try);
ALTER TABLE ONLY public.departure
    ADD CONSTRAINT departure_pkey PRIMARY KEY (team_id, person_id);
ALTER TABLE ONLY public.desk_view
    ADD CONSTRAINT desk_view_pkey PRIMARY KEY (team_id, person_id, name);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_form_id_revision_key UNIQUE (form_id, revision);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_pkey PRIMARY KEY (form_id, number);
ALTER TABLE ONLY public.errand
    ADD CONSTRAINT errand_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_form_id_number_kind_key_key UNIQUE (form_id, number, kind, key);
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.export_file
    ADD CONSTRAINT export_file_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.feed
    ADD CONSTRAINT feed_digest_key UNIQUE (digest);
ALTER TABLE ONLY public.feed
    ADD CONSTRAINT feed_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.file_import
    ADD CONSTRAINT file_import_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.form_exception
    ADD CONSTRAINT form_exception_pkey PRIMARY KEY (form_id, person_id);
ALTER TABLE ONLY public.form_outline
    ADD CONSTRAINT form_outline_pkey PRIMARY KEY (form_id);
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_team_id_slug_key UNIQUE (team_id, slug);
ALTER TABLE ONLY public.former_slug
    ADD CONSTRAINT former_slug_pkey PRIMARY KEY (team_id, slug);
ALTER TABLE ONLY public.invitation
    ADD CONSTRAINT invitation_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.invitation
    ADD CONSTRAINT invitation_team_id_email_folded_key UNIQUE (team_id, email_folded);
ALTER TABLE ONLY public.kept_answers
    ADD CONSTRAINT kept_answers_digest_key UNIQUE (digest);
ALTER TABLE ONLY public.kept_answers
    ADD CONSTRAINT kept_answers_pkey PRIMARY KEY (form_id, number);
ALTER TABLE ONLY public.known_network
    ADD CONSTRAINT known_network_pkey PRIMARY KEY (person_id, network);
ALTER TABLE ONLY public.ledger_due
    ADD CONSTRAINT ledger_due_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_pkey PRIMARY KEY (form_id);
ALTER TABLE ONLY public.link_batch
    ADD CONSTRAINT link_batch_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.link_mail
    ADD CONSTRAINT link_mail_pkey PRIMARY KEY (link_id);
ALTER TABLE ONLY public.member_link
    ADD CONSTRAINT member_link_asked_digest_key UNIQUE (asked_digest);
ALTER TABLE ONLY public.member_link
    ADD CONSTRAINT member_link_pkey PRIMARY KEY (token_digest);
ALTER TABLE ONLY public.member
    ADD CONSTRAINT member_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.member_session
    ADD CONSTRAINT member_session_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.member_session
    ADD CONSTRAINT member_session_token_digest_key UNIQUE (token_digest);
ALTER TABLE ONLY public.member
    ADD CONSTRAINT member_table_id_number_key UNIQUE (table_id, number);
ALTER TABLE ONLY public.membership
    ADD CONSTRAINT membership_pkey PRIMARY KEY (team_id, person_id);
ALTER TABLE ONLY public.option_list
    ADD CONSTRAINT option_list_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.password_link
    ADD CONSTRAINT password_link_pkey PRIMARY KEY (token_digest);
ALTER TABLE ONLY public.payment
    ADD CONSTRAINT payment_account_id_provider_id_key UNIQUE (account_id, provider_id);
ALTER TABLE ONLY public.payment
    ADD CONSTRAINT payment_form_id_number_turn_key UNIQUE (form_id, number, turn);
ALTER TABLE ONLY public.payment
    ADD CONSTRAINT payment_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.person_in_group
    ADD CONSTRAINT person_in_group_pkey PRIMARY KEY (team_id, code, person_id);
ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.picture
    ADD CONSTRAINT picture_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.plan
    ADD CONSTRAINT plan_pkey PRIMARY KEY (payment_id);
ALTER TABLE ONLY public.presence
    ADD CONSTRAINT presence_pkey PRIMARY KEY (form_id, tab);
ALTER TABLE ONLY public.procrastinate_events
    ADD CONSTRAINT procrastinate_events_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.procrastinate_jobs
    ADD CONSTRAINT procrastinate_jobs_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.procrastinate_periodic_defers
    ADD CONSTRAINT procrastinate_periodic_defers_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.procrastinate_periodic_defers
    ADD CONSTRAINT procrastinate_periodic_defers_unique UNIQUE (task_name, periodic_id, defer_timestamp);
ALTER TABLE ONLY public.procrastinate_workers
    ADD CONSTRAINT procrastinate_workers_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.rate
    ADD CONSTRAINT rate_pkey PRIMARY KEY (subject);
ALTER TABLE ONLY public.record_change
    ADD CONSTRAINT record_change_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.record_file
    ADD CONSTRAINT record_file_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.record_once
    ADD CONSTRAINT record_once_pkey PRIMARY KEY (table_id, column_id, value);
ALTER TABLE ONLY public.record_origin
    ADD CONSTRAINT record_origin_pkey PRIMARY KEY (table_id, number, form_id, response_number);
ALTER TABLE ONLY public.record
    ADD CONSTRAINT record_pkey PRIMARY KEY (table_id, number);
ALTER TABLE ONLY public.record_reference
    ADD CONSTRAINT record_reference_pkey PRIMARY KEY (table_id, number, column_id, to_table, to_number);
ALTER TABLE ONLY public.record_taken
    ADD CONSTRAINT record_taken_pkey PRIMARY KEY (table_id, number, column_id);
ALTER TABLE ONLY public.recovery_code
    ADD CONSTRAINT recovery_code_pkey PRIMARY KEY (person_id, mark);
ALTER TABLE ONLY public.refund
    ADD CONSTRAINT refund_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.response_counter
    ADD CONSTRAINT response_counter_pkey PRIMARY KEY (form_id);
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_form_id_idempotency_key_key UNIQUE (form_id, idempotency_key);
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_pkey PRIMARY KEY (form_id, number);
ALTER TABLE ONLY public.response_view
    ADD CONSTRAINT response_view_form_id_name_key UNIQUE (form_id, name);
ALTER TABLE ONLY public.response_view
    ADD CONSTRAINT response_view_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.run
    ADD CONSTRAINT run_form_id_number_follow_up_moment_again_key UNIQUE (form_id, number, follow_up, moment, again);
ALTER TABLE ONLY public.run
    ADD CONSTRAINT run_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.saved_state
    ADD CONSTRAINT saved_state_pkey PRIMARY KEY (form_id, revision);
ALTER TABLE ONLY public.seal_key
    ADD CONSTRAINT seal_key_pkey PRIMARY KEY (form_id, number);
ALTER TABLE ONLY public.sealed_link
    ADD CONSTRAINT sealed_link_form_id_mark_key UNIQUE (form_id, mark);
ALTER TABLE ONLY public.sealed_link
    ADD CONSTRAINT sealed_link_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.second_factor
    ADD CONSTRAINT second_factor_credential_key UNIQUE (credential);
ALTER TABLE ONLY public.second_factor
    ADD CONSTRAINT second_factor_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_id_key UNIQUE (id);
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_pkey PRIMARY KEY (token_digest);
ALTER TABLE ONLY public.sign_in_step
    ADD CONSTRAINT sign_in_step_pkey PRIMARY KEY (token_digest);
ALTER TABLE ONLY public.sign_in_try
    ADD CONSTRAINT sign_in_try_pkey PRIMARY KEY (subject);
ALTER TABLE ONLY public.standing
    ADD CONSTRAINT standing_pkey PRIMARY KEY (form_id, number);
ALTER TABLE ONLY public.task
    ADD CONSTRAINT task_form_id_number_run_key UNIQUE (form_id, number, run);
ALTER TABLE ONLY public.task
    ADD CONSTRAINT task_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.team_group
    ADD CONSTRAINT team_group_pkey PRIMARY KEY (team_id, code);
ALTER TABLE ONLY public.team
    ADD CONSTRAINT team_personal_of_key UNIQUE (personal_of);
ALTER TABLE ONLY public.team
    ADD CONSTRAINT team_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.team
    ADD CONSTRAINT team_slug_key UNIQUE (slug);
ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.visit_count
    ADD CONSTRAINT visit_count_pkey PRIMARY KEY (slice_id, what, part, bucket);
ALTER TABLE ONLY public.visit
    ADD CONSTRAINT visit_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.visit_slice
    ADD CONSTRAINT visit_slice_form_id_day_edition_presentation_way_page_link__key UNIQUE (form_id, day, edition, presentation, way, page, link, width);
ALTER TABLE ONLY public.visit_slice
    ADD CONSTRAINT visit_slice_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.went_live
    ADD CONSTRAINT went_live_pkey PRIMARY KEY (id);
CREATE INDEX account_of_team ON public.account USING btree (team_id);
CREATE UNIQUE INDEX account_practice ON public.account USING btree ((true)) WHERE (team_id IS NULL);
CREATE INDEX api_key_team ON public.api_key USING btree (team_id);
CREATE INDEX approval_decider_of_step ON public.approval_decider USING btree (approval_id, "position");
CREATE INDEX approval_open ON public.approval USING btree (form_id) WHERE (state = ANY (ARRAY['asked'::text, 'asked back'::text]));
CREATE INDEX audit_entry_of_kind ON public.audit_entry USING btree (team_id, kind, id DESC);
CREATE INDEX audit_entry_of_team ON public.audit_entry USING btree (team_id, id DESC);
CREATE INDEX bulk_form ON public.bulk USING btree (form_id, created_at);
CREATE INDEX calendar_entry_in ON public.calendar_entry USING btree (calendar_id);
CREATE INDEX claim_slots ON public.claim USING btree (form_id, name) WHERE (name ~~ 'slot:%'::text);
CREATE INDEX claim_waiting ON public.claim USING btree (form_id, name, waiting_since) WHERE ((waiting_since IS NOT NULL) AND (released_at IS NULL));
CREATE INDEX claimable_taken ON public.claimable USING btree (form_id) WHERE ((taken > 0) OR closed OR (capacity = 0));
CREATE UNIQUE INDEX data_table_address ON public.data_table USING btree (team_id, (((definition -> 'published'::text) ->> 'address'::text))) WHERE (deleted_at IS NULL);
CREATE INDEX data_table_team ON public.data_table USING btree (team_id);
CREATE INDEX errand_ended ON public.errand USING btree (ended_at);
CREATE INDEX errand_of_team ON public.errand USING btree (team_id, id);
CREATE INDEX export_file_form ON public.export_file USING btree (form_id);
CREATE INDEX feed_form ON public.feed USING btree (form_id);
CREATE INDEX feed_view ON public.feed USING btree (view_id);
CREATE INDEX file_import_form ON public.file_import USING btree (form_id, created_at);
CREATE INDEX file_import_table ON public.file_import USING btree (table_id, created_at);
CREATE INDEX form_bin ON public.form USING btree (deleted_at) WHERE (deleted_at IS NOT NULL);
CREATE INDEX form_desk ON public.form USING btree (team_id, changed_at DESC) WHERE (deleted_at IS NULL);
CREATE INDEX form_exception_person ON public.form_exception USING btree (person_id);
CREATE INDEX former_slug_form ON public.former_slug USING btree (form_id);
CREATE INDEX idx_procrastinate_jobs_worker_not_null ON public.procrastinate_jobs USING btree (worker_id) WHERE ((worker_id IS NOT NULL) AND (status = 'doing'::public.procrastinate_job_status));
CREATE INDEX idx_procrastinate_workers_last_heartbeat ON public.procrastinate_workers USING btree (last_heartbeat);
CREATE INDEX invitation_token ON public.invitation USING btree (token_digest) WHERE (token_digest <> '\x'::bytea);
CREATE INDEX kept_answers_member ON public.kept_answers USING btree (member_digest) WHERE (member_digest IS NOT NULL);
CREATE INDEX kept_answers_until ON public.kept_answers USING btree (until);
CREATE INDEX kept_answers_visit ON public.kept_answers USING btree (form_id, visit);
CREATE INDEX ledger_due_form ON public.ledger_due USING btree (form_id, id);
CREATE INDEX link_batch_form ON public.link_batch USING btree (form_id, id DESC);
CREATE INDEX member_link_member ON public.member_link USING btree (member_id);
CREATE INDEX member_session_member ON public.member_session USING btree (member_id);
CREATE INDEX membership_person ON public.membership USING btree (person_id);
CREATE INDEX option_list_team ON public.option_list USING btree (team_id);
CREATE INDEX password_link_person ON public.password_link USING btree (person_id);
CREATE INDEX payment_changed ON public.payment USING btree (account_id, changed_at);
CREATE INDEX payment_due ON public.payment USING btree (due_until) WHERE (state = 'due'::text);
CREATE UNIQUE INDEX person_email ON public.person USING btree (email_folded);
CREATE INDEX person_in_group_person ON public.person_in_group USING btree (team_id, person_id);
CREATE INDEX picture_of_team ON public.picture USING btree (team_id, stored_at DESC);
CREATE INDEX plan_running ON public.plan USING btree (looked_at) WHERE (state = ANY (ARRAY['running'::text, 'stopping'::text]));
CREATE INDEX procrastinate_events_job_id_fkey_v1 ON public.procrastinate_events USING btree (job_id);
CREATE INDEX procrastinate_jobs_id_lock_idx_v1 ON public.procrastinate_jobs USING btree (id, lock) WHERE (status = ANY (ARRAY['todo'::public.procrastinate_job_status, 'doing'::public.procrastinate_job_status]));
CREATE UNIQUE INDEX procrastinate_jobs_lock_idx_v1 ON public.procrastinate_jobs USING btree (lock) WHERE (status = 'doing'::public.procrastinate_job_status);
CREATE INDEX procrastinate_jobs_priority_idx_v1 ON public.procrastinate_jobs USING btree (priority DESC, id) WHERE (status = 'todo'::public.procrastinate_job_status);
CREATE INDEX procrastinate_jobs_queue_name_idx_v1 ON public.procrastinate_jobs USING btree (queue_name);
CREATE UNIQUE INDEX procrastinate_jobs_queueing_lock_idx_v1 ON public.procrastinate_jobs USING btree (queueing_lock) WHERE (status = 'todo'::public.procrastinate_job_status);
CREATE INDEX procrastinate_periodic_defers_job_id_fkey_v1 ON public.procrastinate_periodic_defers USING btree (job_id);
CREATE INDEX rate_ended ON public.rate USING btree (ends_at);
CREATE INDEX record_called ON public.record USING btree (table_id, lower(btrim(name))) WHERE (removed_at IS NULL);
CREATE INDEX record_change_number ON public.record_change USING btree (table_id, number);
CREATE INDEX record_file_of ON public.record_file USING btree (table_id, number);
CREATE INDEX record_keys ON public.record USING gin (table_id, keys) WHERE (removed_at IS NULL);
CREATE INDEX record_name ON public.record USING btree (table_id, name COLLATE "und-x-icu", number) WHERE (removed_at IS NULL);
CREATE INDEX record_once_number ON public.record_once USING btree (table_id, number);
CREATE INDEX record_origin_response ON public.record_origin USING btree (form_id, response_number);
CREATE INDEX record_published ON public.record USING btree (table_id, published_at DESC, number DESC) WHERE ((published_at IS NOT NULL) AND (removed_at IS NULL));
CREATE INDEX record_reference_to ON public.record_reference USING btree (to_table, to_number);
CREATE INDEX record_there ON public.record USING btree (table_id, number) WHERE (removed_at IS NULL);
CREATE INDEX record_words ON public.record USING gin (table_id, words public.gin_trgm_ops) WHERE (removed_at IS NULL);
CREATE INDEX refund_of_payment ON public.refund USING btree (payment_id);
CREATE INDEX response_filled_by ON public.response USING btree (filled_by) WHERE (filled_by IS NOT NULL);
CREATE INDEX response_in_hand ON public.response USING btree (person_id, form_id) WHERE (person_id IS NOT NULL);
CREATE INDEX response_member ON public.response USING btree (member_id) WHERE (member_id IS NOT NULL);
CREATE INDEX response_newest ON public.response USING btree (form_id, received_at DESC, number DESC);
CREATE INDEX response_not_complete ON public.response USING btree (form_id) WHERE (stage <> 'complete'::text);
CREATE INDEX response_sealed_link ON public.response USING btree (sealed_link) WHERE (sealed_link IS NOT NULL);
CREATE INDEX response_tagged ON public.response USING btree (form_id) WHERE (tags <> '{}'::text[]);
CREATE UNIQUE INDEX response_view_first ON public.response_view USING btree (form_id) WHERE opens_first;
CREATE INDEX run_failed ON public.run USING btree (form_id) WHERE (state = 'failed'::text);
CREATE INDEX run_mailed ON public.run USING btree (form_id, ended_at) WHERE ((kind = 'email'::text) AND (state = 'done'::text));
CREATE INDEX run_waiting ON public.run USING btree (form_id) WHERE (state = 'waiting'::text);
CREATE INDEX sealed_link_batch ON public.sealed_link USING btree (batch_id, id);
CREATE INDEX second_factor_person ON public.second_factor USING btree (person_id);
CREATE INDEX session_expiry ON public.session USING btree (expires_at);
CREATE INDEX task_open ON public.task USING btree (form_id) WHERE (done_at IS NULL);
CREATE UNIQUE INDEX team_group_name ON public.team_group USING btree (team_id, lower(name));
CREATE UNIQUE INDEX team_rehearsal ON public.team USING btree (rehearsal_of, rehearsed_by);
CREATE INDEX upload_of_response ON public.upload USING btree (form_id, response_number);
CREATE INDEX upload_unclaimed ON public.upload USING btree (stored_at) WHERE (response_number IS NULL);
CREATE INDEX upload_unclaimed_of_form ON public.upload USING btree (form_id) INCLUDE (size) WHERE (response_number IS NULL);
CREATE INDEX upload_unclaimed_of_network ON public.upload USING btree (network) INCLUDE (size) WHERE (response_number IS NULL);
CREATE INDEX visit_form ON public.visit USING btree (form_id);
CREATE INDEX visit_seen ON public.visit USING btree (seen_at);
CREATE INDEX went_live_form ON public.went_live USING btree (form_id, id DESC);
CREATE TRIGGER claim_of_places_changed AFTER UPDATE ON public.claim FOR EACH ROW WHEN ((new.name ~~ 'record:%'::text)) EXECUTE FUNCTION public.count_places();
CREATE TRIGGER claim_of_places_gone AFTER DELETE ON public.claim FOR EACH ROW WHEN ((old.name ~~ 'record:%'::text)) EXECUTE FUNCTION public.count_places();
CREATE TRIGGER claim_of_places_made AFTER INSERT ON public.claim FOR EACH ROW WHEN ((new.name ~~ 'record:%'::text)) EXECUTE FUNCTION public.count_places();
CREATE TRIGGER edition_is_immutable BEFORE UPDATE ON public.edition FOR EACH ROW EXECUTE FUNCTION public.refuse_edition_change();
CREATE TRIGGER procrastinate_jobs_notify_queue_job_aborted_v1 AFTER UPDATE OF abort_requested ON public.procrastinate_jobs FOR EACH ROW WHEN (((old.abort_requested = false) AND (new.abort_requested = true) AND (new.status = 'doing'::public.procrastinate_job_status))) EXECUTE FUNCTION public.procrastinate_notify_queue_abort_job_v1();
CREATE TRIGGER procrastinate_jobs_notify_queue_job_inserted_v1 AFTER INSERT ON public.procrastinate_jobs FOR EACH ROW WHEN ((new.status = 'todo'::public.procrastinate_job_status)) EXECUTE FUNCTION public.procrastinate_notify_queue_job_inserted_v1();
CREATE TRIGGER procrastinate_trigger_abort_requested_events_v1 AFTER UPDATE OF abort_requested ON public.procrastinate_jobs FOR EACH ROW WHEN ((new.abort_requested = true)) EXECUTE FUNCTION public.procrastinate_trigger_abort_requested_events_procedure_v1();
CREATE TRIGGER procrastinate_trigger_delete_jobs_v1 BEFORE DELETE ON public.procrastinate_jobs FOR EACH ROW EXECUTE FUNCTION public.procrastinate_unlink_periodic_defers_v1();
CREATE TRIGGER procrastinate_trigger_scheduled_events_v1 AFTER INSERT OR UPDATE ON public.procrastinate_jobs FOR EACH ROW WHEN (((new.scheduled_at IS NOT NULL) AND (new.status = 'todo'::public.procrastinate_job_status))) EXECUTE FUNCTION public.procrastinate_trigger_function_scheduled_events_v1();
CREATE TRIGGER procrastinate_trigger_status_events_update_v1 AFTER UPDATE OF status ON public.procrastinate_jobs FOR EACH ROW EXECUTE FUNCTION public.procrastinate_trigger_function_status_events_update_v1();
CREATE TRIGGER response_changed AFTER UPDATE ON public.response FOR EACH ROW WHEN ((old.* IS DISTINCT FROM new.*)) EXECUTE FUNCTION public.note_for_ledger();
CREATE TRIGGER response_gone AFTER DELETE ON public.response FOR EACH ROW EXECUTE FUNCTION public.note_for_ledger();
ALTER TABLE ONLY public.account
    ADD CONSTRAINT account_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.address_change
    ADD CONSTRAINT address_change_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.api_key
    ADD CONSTRAINT api_key_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.api_key
    ADD CONSTRAINT api_key_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.api_key
    ADD CONSTRAINT api_key_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.approval_decider
    ADD CONSTRAINT approval_decider_approval_id_position_fkey FOREIGN KEY (approval_id, "position") REFERENCES public.approval_step(approval_id, "position") ON DELETE CASCADE;
ALTER TABLE ONLY public.approval_decider
    ADD CONSTRAINT approval_decider_approved_by_fkey FOREIGN KEY (approved_by) REFERENCES public.person(id);
ALTER TABLE ONLY public.approval_decider
    ADD CONSTRAINT approval_decider_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.approval
    ADD CONSTRAINT approval_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.approval_step
    ADD CONSTRAINT approval_step_approval_id_fkey FOREIGN KEY (approval_id) REFERENCES public.approval(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.audit_entry
    ADD CONSTRAINT audit_entry_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.audit_entry
    ADD CONSTRAINT audit_entry_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.brand
    ADD CONSTRAINT brand_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.bulk
    ADD CONSTRAINT bulk_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.bulk
    ADD CONSTRAINT bulk_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.calendar_entry
    ADD CONSTRAINT calendar_entry_calendar_id_fkey FOREIGN KEY (calendar_id) REFERENCES public.calendar(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.calendar_entry
    ADD CONSTRAINT calendar_entry_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.calendar
    ADD CONSTRAINT calendar_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.claim
    ADD CONSTRAINT claim_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.claimable
    ADD CONSTRAINT claimable_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.data_table
    ADD CONSTRAINT data_table_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.delivery
    ADD CONSTRAINT delivery_run_id_fkey FOREIGN KEY (run_id) REFERENCES public.run(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.departure
    ADD CONSTRAINT departure_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.departure
    ADD CONSTRAINT departure_successor_id_fkey FOREIGN KEY (successor_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.departure
    ADD CONSTRAINT departure_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.desk_view
    ADD CONSTRAINT desk_view_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.desk_view
    ADD CONSTRAINT desk_view_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_published_by_fkey FOREIGN KEY (published_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.errand
    ADD CONSTRAINT errand_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.export_file
    ADD CONSTRAINT export_file_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.export_file
    ADD CONSTRAINT export_file_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.feed
    ADD CONSTRAINT feed_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.feed
    ADD CONSTRAINT feed_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.feed
    ADD CONSTRAINT feed_view_id_fkey FOREIGN KEY (view_id) REFERENCES public.response_view(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.file_import
    ADD CONSTRAINT file_import_table_id_fkey FOREIGN KEY (table_id) REFERENCES public.data_table(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.form_exception
    ADD CONSTRAINT form_exception_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.form_exception
    ADD CONSTRAINT form_exception_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_id_live_edition_fkey FOREIGN KEY (id, live_edition) REFERENCES public.edition(form_id, number);
ALTER TABLE ONLY public.form_outline
    ADD CONSTRAINT form_outline_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_owner_id_fkey FOREIGN KEY (owner_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.former_slug
    ADD CONSTRAINT former_slug_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.former_slug
    ADD CONSTRAINT former_slug_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id);
ALTER TABLE ONLY public.invitation
    ADD CONSTRAINT invitation_invited_by_fkey FOREIGN KEY (invited_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.invitation
    ADD CONSTRAINT invitation_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.kept_answers
    ADD CONSTRAINT kept_answers_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.known_network
    ADD CONSTRAINT known_network_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.ledger
    ADD CONSTRAINT ledger_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.link_batch
    ADD CONSTRAINT link_batch_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.link_batch
    ADD CONSTRAINT link_batch_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.link_mail
    ADD CONSTRAINT link_mail_link_id_fkey FOREIGN KEY (link_id) REFERENCES public.sealed_link(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.member_link
    ADD CONSTRAINT member_link_member_id_fkey FOREIGN KEY (member_id) REFERENCES public.member(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.member_session
    ADD CONSTRAINT member_session_member_id_fkey FOREIGN KEY (member_id) REFERENCES public.member(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.member
    ADD CONSTRAINT member_table_id_number_fkey FOREIGN KEY (table_id, number) REFERENCES public.record(table_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.membership
    ADD CONSTRAINT membership_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.membership
    ADD CONSTRAINT membership_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.option_list
    ADD CONSTRAINT option_list_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.password_link
    ADD CONSTRAINT password_link_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.payment
    ADD CONSTRAINT payment_account_id_fkey FOREIGN KEY (account_id) REFERENCES public.account(id);
ALTER TABLE ONLY public.payment
    ADD CONSTRAINT payment_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.person_in_group
    ADD CONSTRAINT person_in_group_team_id_code_fkey FOREIGN KEY (team_id, code) REFERENCES public.team_group(team_id, code) ON DELETE CASCADE;
ALTER TABLE ONLY public.person_in_group
    ADD CONSTRAINT person_in_group_team_id_person_id_fkey FOREIGN KEY (team_id, person_id) REFERENCES public.membership(team_id, person_id) ON DELETE CASCADE;
ALTER TABLE ONLY public.picture
    ADD CONSTRAINT picture_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.plan
    ADD CONSTRAINT plan_payment_id_fkey FOREIGN KEY (payment_id) REFERENCES public.payment(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.plan
    ADD CONSTRAINT plan_stopped_by_fkey FOREIGN KEY (stopped_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.presence
    ADD CONSTRAINT presence_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.presence
    ADD CONSTRAINT presence_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.procrastinate_events
    ADD CONSTRAINT procrastinate_events_job_id_fkey FOREIGN KEY (job_id) REFERENCES public.procrastinate_jobs(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.procrastinate_jobs
    ADD CONSTRAINT procrastinate_jobs_worker_id_fkey FOREIGN KEY (worker_id) REFERENCES public.procrastinate_workers(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.procrastinate_periodic_defers
    ADD CONSTRAINT procrastinate_periodic_defers_job_id_fkey FOREIGN KEY (job_id) REFERENCES public.procrastinate_jobs(id);
ALTER TABLE ONLY public.record_change
    ADD CONSTRAINT record_change_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.record_change
    ADD CONSTRAINT record_change_table_id_number_fkey FOREIGN KEY (table_id, number) REFERENCES public.record(table_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.record_once
    ADD CONSTRAINT record_once_table_id_number_fkey FOREIGN KEY (table_id, number) REFERENCES public.record(table_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.record_origin
    ADD CONSTRAINT record_origin_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.record_origin
    ADD CONSTRAINT record_origin_table_id_number_fkey FOREIGN KEY (table_id, number) REFERENCES public.record(table_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.record_reference
    ADD CONSTRAINT record_reference_table_id_number_fkey FOREIGN KEY (table_id, number) REFERENCES public.record(table_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.record
    ADD CONSTRAINT record_table_id_fkey FOREIGN KEY (table_id) REFERENCES public.data_table(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.record_taken
    ADD CONSTRAINT record_taken_table_id_number_fkey FOREIGN KEY (table_id, number) REFERENCES public.record(table_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.recovery_code
    ADD CONSTRAINT recovery_code_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.refund
    ADD CONSTRAINT refund_asked_by_fkey FOREIGN KEY (asked_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.refund
    ADD CONSTRAINT refund_payment_id_fkey FOREIGN KEY (payment_id) REFERENCES public.payment(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.response_counter
    ADD CONSTRAINT response_counter_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_filled_by_fkey FOREIGN KEY (filled_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_form_id_edition_fkey FOREIGN KEY (form_id, edition) REFERENCES public.edition(form_id, number);
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.file_import
    ADD CONSTRAINT response_import_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.file_import
    ADD CONSTRAINT response_import_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_member_id_fkey FOREIGN KEY (member_id) REFERENCES public.member(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_sealed_link_fkey FOREIGN KEY (sealed_link) REFERENCES public.sealed_link(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.response_view
    ADD CONSTRAINT response_view_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.response_view
    ADD CONSTRAINT response_view_made_by_fkey FOREIGN KEY (made_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.run
    ADD CONSTRAINT run_asked_by_fkey FOREIGN KEY (asked_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.run
    ADD CONSTRAINT run_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.saved_state
    ADD CONSTRAINT saved_state_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.saved_state
    ADD CONSTRAINT saved_state_saved_by_fkey FOREIGN KEY (saved_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.seal_key
    ADD CONSTRAINT seal_key_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sealed_link
    ADD CONSTRAINT sealed_link_batch_id_fkey FOREIGN KEY (batch_id) REFERENCES public.link_batch(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sealed_link
    ADD CONSTRAINT sealed_link_form_id_key_fkey FOREIGN KEY (form_id, key) REFERENCES public.seal_key(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.second_factor
    ADD CONSTRAINT second_factor_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sign_in_step
    ADD CONSTRAINT sign_in_step_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.sign_in_step
    ADD CONSTRAINT sign_in_step_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.standing
    ADD CONSTRAINT standing_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.task
    ADD CONSTRAINT task_done_by_fkey FOREIGN KEY (done_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.task
    ADD CONSTRAINT task_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.task
    ADD CONSTRAINT task_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.team_group
    ADD CONSTRAINT team_group_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.team
    ADD CONSTRAINT team_members_table_fkey FOREIGN KEY (members_table) REFERENCES public.data_table(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.team
    ADD CONSTRAINT team_personal_of_fkey FOREIGN KEY (personal_of) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.team
    ADD CONSTRAINT team_rehearsal_of_fkey FOREIGN KEY (rehearsal_of) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.team
    ADD CONSTRAINT team_rehearsed_by_fkey FOREIGN KEY (rehearsed_by) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_form_id_response_number_fkey FOREIGN KEY (form_id, response_number) REFERENCES public.response(form_id, number);
ALTER TABLE ONLY public.visit_count
    ADD CONSTRAINT visit_count_slice_id_fkey FOREIGN KEY (slice_id) REFERENCES public.visit_slice(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.visit
    ADD CONSTRAINT visit_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.visit_slice
    ADD CONSTRAINT visit_slice_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.went_live
    ADD CONSTRAINT went_live_form_id_edition_fkey FOREIGN KEY (form_id, edition) REFERENCES public.edition(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.went_live
    ADD CONSTRAINT went_live_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
