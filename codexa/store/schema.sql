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
CREATE TABLE public.brand (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    team_id uuid NOT NULL,
    name text NOT NULL,
    look jsonb NOT NULL,
    changed_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT brand_name_check CHECK ((name <> ''::text))
);
CREATE TABLE public.edition (
    form_id uuid NOT NULL,
    number integer NOT NULL,
    definition jsonb NOT NULL,
    revision integer NOT NULL,
    published_at timestamp with time zone DEFAULT now() NOT NULL,
    published_by uuid,
    digest text GENERATED ALWAYS AS (md5((definition)::text)) STORED,
    CONSTRAINT edition_number_check CHECK ((number > 0))
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
    CONSTRAINT form_slug_check CHECK ((slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$'::text))
);
CREATE TABLE public.known_network (
    person_id uuid NOT NULL,
    network text NOT NULL,
    seen_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.membership (
    team_id uuid NOT NULL,
    person_id uuid NOT NULL,
    role text NOT NULL,
    CONSTRAINT membership_role_check CHECK ((role = ANY (ARRAY['owner'::text, 'editor'::text, 'reviewer'::text, 'viewer'::text])))
);
CREATE TABLE public.person (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    email text NOT NULL,
    name text NOT NULL,
    password_hash text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    email_folded text NOT NULL
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
CREATE TABLE public.presence (
    form_id uuid NOT NULL,
    tab text NOT NULL,
    person_id uuid NOT NULL,
    area text NOT NULL,
    part text,
    seen_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE UNLOGGED TABLE public.rate (
    subject text NOT NULL,
    count bigint NOT NULL,
    ends_at timestamp with time zone NOT NULL
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
    CONSTRAINT response_decision_check CHECK ((decision = ANY (ARRAY['none'::text, 'asked'::text, 'approved'::text, 'denied'::text]))),
    CONSTRAINT response_payment_check CHECK ((payment = ANY (ARRAY['none'::text, 'due'::text, 'pending'::text, 'paid'::text, 'failed'::text, 'part refunded'::text, 'refunded'::text]))),
    CONSTRAINT response_stage_check CHECK ((stage = ANY (ARRAY['kept'::text, 'waiting'::text, 'complete'::text, 'expired'::text, 'removed'::text])))
);
CREATE TABLE public.response_counter (
    form_id uuid NOT NULL,
    last_number integer DEFAULT 0 NOT NULL
);
CREATE TABLE public.saved_state (
    form_id uuid NOT NULL,
    revision integer NOT NULL,
    draft jsonb NOT NULL,
    saved_at timestamp with time zone DEFAULT now() NOT NULL,
    saved_by uuid
);
CREATE TABLE public.session (
    token_digest bytea NOT NULL,
    person_id uuid NOT NULL,
    team_id uuid NOT NULL,
    csrf_token text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    expires_at timestamp with time zone NOT NULL,
    seen_at timestamp with time zone DEFAULT now() NOT NULL
);
CREATE TABLE public.sign_in_try (
    subject text NOT NULL,
    failures integer NOT NULL,
    tried_at timestamp with time zone NOT NULL,
    next_at timestamp with time zone NOT NULL
);
CREATE TABLE public.team (
    id uuid DEFAULT gen_random_uuid() NOT NULL,
    slug text NOT NULL,
    name text NOT NULL,
    created_at timestamp with time zone DEFAULT now() NOT NULL,
    CONSTRAINT team_slug_check CHECK ((slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$'::text))
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
ALTER TABLE ONLY public.brand
    ADD CONSTRAINT brand_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.brand
    ADD CONSTRAINT brand_team_id_name_key UNIQUE (team_id, name);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_form_id_revision_key UNIQUE (form_id, revision);
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_pkey PRIMARY KEY (form_id, number);
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_form_id_number_kind_key_key UNIQUE (form_id, number, kind, key);
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_team_id_slug_key UNIQUE (team_id, slug);
ALTER TABLE ONLY public.known_network
    ADD CONSTRAINT known_network_pkey PRIMARY KEY (person_id, network);
ALTER TABLE ONLY public.membership
    ADD CONSTRAINT membership_pkey PRIMARY KEY (team_id, person_id);
ALTER TABLE ONLY public.person
    ADD CONSTRAINT person_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.picture
    ADD CONSTRAINT picture_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.presence
    ADD CONSTRAINT presence_pkey PRIMARY KEY (form_id, tab);
ALTER TABLE ONLY public.rate
    ADD CONSTRAINT rate_pkey PRIMARY KEY (subject);
ALTER TABLE ONLY public.response_counter
    ADD CONSTRAINT response_counter_pkey PRIMARY KEY (form_id);
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_form_id_idempotency_key_key UNIQUE (form_id, idempotency_key);
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_pkey PRIMARY KEY (form_id, number);
ALTER TABLE ONLY public.saved_state
    ADD CONSTRAINT saved_state_pkey PRIMARY KEY (form_id, revision);
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_pkey PRIMARY KEY (token_digest);
ALTER TABLE ONLY public.sign_in_try
    ADD CONSTRAINT sign_in_try_pkey PRIMARY KEY (subject);
ALTER TABLE ONLY public.team
    ADD CONSTRAINT team_pkey PRIMARY KEY (id);
ALTER TABLE ONLY public.team
    ADD CONSTRAINT team_slug_key UNIQUE (slug);
ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_pkey PRIMARY KEY (id);
CREATE INDEX form_desk ON public.form USING btree (team_id, changed_at DESC) WHERE (deleted_at IS NULL);
CREATE INDEX membership_person ON public.membership USING btree (person_id);
CREATE UNIQUE INDEX person_email ON public.person USING btree (email_folded);
CREATE INDEX picture_of_team ON public.picture USING btree (team_id, stored_at DESC);
CREATE INDEX rate_ended ON public.rate USING btree (ends_at);
CREATE INDEX response_newest ON public.response USING btree (form_id, received_at DESC, number DESC);
CREATE INDEX session_expiry ON public.session USING btree (expires_at);
CREATE INDEX upload_of_response ON public.upload USING btree (form_id, response_number);
CREATE INDEX upload_unclaimed ON public.upload USING btree (stored_at) WHERE (response_number IS NULL);
CREATE INDEX upload_unclaimed_of_form ON public.upload USING btree (form_id) INCLUDE (size) WHERE (response_number IS NULL);
CREATE INDEX upload_unclaimed_of_network ON public.upload USING btree (network) INCLUDE (size) WHERE (response_number IS NULL);
CREATE TRIGGER edition_is_immutable BEFORE UPDATE ON public.edition FOR EACH ROW EXECUTE FUNCTION public.refuse_edition_change();
ALTER TABLE ONLY public.brand
    ADD CONSTRAINT brand_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.edition
    ADD CONSTRAINT edition_published_by_fkey FOREIGN KEY (published_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_form_id_number_fkey FOREIGN KEY (form_id, number) REFERENCES public.response(form_id, number) ON DELETE CASCADE;
ALTER TABLE ONLY public.event
    ADD CONSTRAINT event_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_changed_by_fkey FOREIGN KEY (changed_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_id_live_edition_fkey FOREIGN KEY (id, live_edition) REFERENCES public.edition(form_id, number);
ALTER TABLE ONLY public.form
    ADD CONSTRAINT form_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.known_network
    ADD CONSTRAINT known_network_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.membership
    ADD CONSTRAINT membership_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.membership
    ADD CONSTRAINT membership_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.picture
    ADD CONSTRAINT picture_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.presence
    ADD CONSTRAINT presence_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.presence
    ADD CONSTRAINT presence_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.response_counter
    ADD CONSTRAINT response_counter_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_form_id_edition_fkey FOREIGN KEY (form_id, edition) REFERENCES public.edition(form_id, number);
ALTER TABLE ONLY public.response
    ADD CONSTRAINT response_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.saved_state
    ADD CONSTRAINT saved_state_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.saved_state
    ADD CONSTRAINT saved_state_saved_by_fkey FOREIGN KEY (saved_by) REFERENCES public.person(id) ON DELETE SET NULL;
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_person_id_fkey FOREIGN KEY (person_id) REFERENCES public.person(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.session
    ADD CONSTRAINT session_team_id_fkey FOREIGN KEY (team_id) REFERENCES public.team(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_form_id_fkey FOREIGN KEY (form_id) REFERENCES public.form(id) ON DELETE CASCADE;
ALTER TABLE ONLY public.upload
    ADD CONSTRAINT upload_form_id_response_number_fkey FOREIGN KEY (form_id, response_number) REFERENCES public.response(form_id, number);
