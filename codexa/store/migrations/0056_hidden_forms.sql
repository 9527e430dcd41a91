-- Whether a form of a team is hidden from somebody in it; from owners none is.
CREATE FUNCTION is_hidden(of_form uuid, in_team uuid, from_person uuid) RETURNS boolean LANGUAGE sql STABLE AS $$
    SELECT EXISTS (
        SELECT FROM form_exception JOIN membership
            ON membership.person_id = form_exception.person_id AND membership.team_id = in_team
        WHERE form_exception.form_id = of_form AND form_exception.person_id = from_person
            AND form_exception.role = 'none' AND membership.role <> 'owner'
    )
$$;
