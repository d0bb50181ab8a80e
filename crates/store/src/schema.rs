diesel::table! {
    mill (id) {
        id -> Uuid,
        name -> Text,
    }
}

diesel::table! {
    flour (id) {
        id -> Uuid,
        mill_id -> Uuid,
        name -> Text,
        species -> Text,
        note -> Text,
        hardness -> Nullable<Text>,
        extraction_pct -> Nullable<Float8>,
        treatment -> Text,
        intended_use -> Text,
        price_per_t -> Nullable<Float8>,
        allergens -> Nullable<Jsonb>,
    }
}

diesel::table! {
    specification_revision (id) {
        id -> Uuid,
        flour_id -> Uuid,
        number -> Int4,
        made_at -> Timestamptz,
        made_by -> Text,
        reason -> Text,
    }
}

diesel::table! {
    specification_limit (revision_id, position) {
        revision_id -> Uuid,
        position -> Int2,
        property -> Text,
        basis -> Nullable<Text>,
        min -> Nullable<Float8>,
        target -> Nullable<Float8>,
        max -> Nullable<Float8>,
        must -> Bool,
        method -> Nullable<Text>,
    }
}

diesel::table! {
    lot (id) {
        id -> Uuid,
        flour_id -> Uuid,
        code -> Text,
        recorded_at -> Timestamptz,
        received_at -> Timestamptz,
    }
}

diesel::table! {
    lot_revision (id) {
        id -> Uuid,
        lot_id -> Uuid,
        number -> Int4,
        made_at -> Timestamptz,
        made_by -> Text,
        reason -> Text,
        milled_on -> Nullable<Date>,
        delivered_on -> Nullable<Date>,
        tonnes -> Nullable<Float8>,
    }
}

diesel::table! {
    reading (lot_revision_id, position) {
        lot_revision_id -> Uuid,
        position -> Int2,
        property -> Text,
        value -> Float8,
        basis -> Nullable<Text>,
        method -> Nullable<Text>,
        stated_value -> Text,
        stated_unit -> Text,
        censored -> Nullable<Text>,
    }
}

diesel::table! {
    formula (id) {
        id -> Uuid,
        name -> Text,
    }
}

diesel::table! {
    formula_revision (id) {
        id -> Uuid,
        formula_id -> Uuid,
        number -> Int4,
        made_at -> Timestamptz,
        made_by -> Text,
        reason -> Text,
        style_points -> Float8,
        piece_kg -> Float8,
        scaling_loss_pct -> Float8,
        fermentation_loss_pct -> Float8,
        bake_loss_pct -> Float8,
        cooling_loss_pct -> Float8,
        hydration_pct -> Nullable<Float8>,
        batch_kg -> Nullable<Float8>,
    }
}

diesel::table! {
    formula_line (revision_id, position) {
        revision_id -> Uuid,
        position -> Int2,
        ingredient -> Text,
        pct -> Float8,
    }
}

diesel::table! {
    method (id) {
        id -> Uuid,
        name -> Text,
    }
}

diesel::table! {
    method_revision (id) {
        id -> Uuid,
        method_id -> Uuid,
        number -> Int4,
        made_at -> Timestamptz,
        made_by -> Text,
        reason -> Text,
        process -> Text,
        target_c -> Float8,
        sponge_c -> Nullable<Float8>,
        machine_divided -> Bool,
    }
}

diesel::table! {
    method_stage (revision_id, position) {
        revision_id -> Uuid,
        position -> Int2,
        kind -> Text,
        label -> Text,
        minutes -> Float8,
        speed -> Nullable<Text>,
        temperature_c -> Nullable<Float8>,
        humidity_pct -> Nullable<Float8>,
        ends_when -> Text,
        adds -> Jsonb,
        end_point -> Text,
        reason -> Text,
        low_min -> Nullable<Float8>,
        high_min -> Nullable<Float8>,
        fold_sets -> Nullable<Int2>,
        stage_id -> Uuid,
        optional_step -> Nullable<Text>,
        ends_at -> Nullable<Float8>,
        ends_after -> Nullable<Uuid>,
        ambient_curve -> Jsonb,
        makes -> Nullable<Text>,
        programme -> Jsonb,
        begins_at_mm -> Nullable<Float8>,
    }
}

diesel::table! {
    line (id) {
        id -> Uuid,
        name -> Text,
    }
}

diesel::table! {
    line_revision (id) {
        id -> Uuid,
        line_id -> Uuid,
        number -> Int4,
        made_at -> Timestamptz,
        made_by -> Text,
        reason -> Text,
        mixer_name -> Text,
        mixer_kind -> Text,
        mixer_min_kg -> Float8,
        mixer_max_kg -> Float8,
        slow_kj_per_kg_min -> Float8,
        fast_kj_per_kg_min -> Float8,
        division_kg -> Float8,
        tap_c -> Float8,
        flour_c -> Float8,
        room_c -> Float8,
        chilled_c -> Nullable<Float8>,
        max_ice_pct -> Float8,
        jacket_kj_per_kg_min -> Nullable<Float8>,
        turn_min -> Float8,
        troughs -> Int4,
        trough_kg -> Float8,
        trough_m2 -> Float8,
        divider_per_min -> Float8,
        proofer_pieces -> Float8,
        oven_pieces -> Float8,
        hot_c -> Nullable<Float8>,
        refrigerator_c -> Nullable<Float8>,
    }
}

diesel::table! {
    dough_temperature (id) {
        id -> Uuid,
        method_id -> Uuid,
        line_id -> Uuid,
        taken_at -> Timestamptz,
        taken_by -> Text,
        flour_c -> Float8,
        room_c -> Float8,
        water_c -> Float8,
        preferment_c -> Nullable<Float8>,
        dough_c -> Float8,
        ice_share_pct -> Float8,
        ice_c -> Float8,
        mixed -> Nullable<Jsonb>,
    }
}

diesel::table! {
    product (id) {
        id -> Uuid,
        slug -> Text,
        name -> Text,
        flour_id -> Uuid,
        formula_id -> Uuid,
        method_id -> Uuid,
        line_id -> Uuid,
    }
}

diesel::table! {
    batch (id) {
        id -> Uuid,
        product_id -> Uuid,
        lot_revision_id -> Uuid,
        specification_revision_id -> Nullable<Uuid>,
        formula_revision_id -> Uuid,
        method_revision_id -> Uuid,
        line_revision_id -> Uuid,
        planned_for -> Timestamptz,
        saved_at -> Timestamptz,
        saved_by -> Text,
        run_settings -> Jsonb,
        issued -> Jsonb,
        parameters_revision_id -> Nullable<Uuid>,
        water_correction_id -> Nullable<Uuid>,
    }
}

diesel::table! {
    batch_event (id) {
        id -> Uuid,
        batch_id -> Uuid,
        kind -> Text,
        stage_id -> Nullable<Uuid>,
        happened_at -> Timestamptz,
        claimed_at -> Nullable<Timestamptz>,
        recorded_at -> Timestamptz,
        person_id -> Nullable<Uuid>,
        who -> Text,
        station_id -> Nullable<Uuid>,
        api_key_id -> Nullable<Uuid>,
        verified -> Bool,
        corrects -> Nullable<Uuid>,
        body -> Jsonb,
        body_hash -> Bytea,
    }
}

diesel::table! {
    batch_state (batch_id) {
        batch_id -> Uuid,
        state -> Text,
        planned_for -> Timestamptz,
        product_id -> Uuid,
        line_id -> Uuid,
        flour_id -> Uuid,
        lot_id -> Uuid,
        started_at -> Nullable<Timestamptz>,
        ended_at -> Nullable<Timestamptz>,
        events -> Int4,
        unplaced -> Int4,
        dough_c -> Nullable<Float8>,
        dough_c_d -> Nullable<Float8>,
        water_pts -> Nullable<Float8>,
        by_feel_pts -> Nullable<Float8>,
        standing_pts -> Float8,
        water_complete -> Bool,
        consistency -> Nullable<Float8>,
        mixing_kj_per_kg -> Nullable<Float8>,
        proof_min -> Nullable<Float8>,
        bake_min -> Nullable<Float8>,
        loss_pct -> Nullable<Float8>,
        pieces_good -> Nullable<Float8>,
        pieces_rejected -> Nullable<Float8>,
        friction_c -> Nullable<Float8>,
        damaged_starch_caution -> Bool,
        water_was_set -> Bool,
        changed_in -> Int8,
        arrival_pct -> Nullable<Float8>,
        score -> Nullable<Float8>,
        crumb_is_low -> Bool,
    }
}

diesel::table! {
    bake_trace (id) {
        id -> Uuid,
        batch_id -> Uuid,
        source -> Text,
        bake_min -> Float8,
        t_min -> Array<Float8>,
        arrival_pct -> Nullable<Float8>,
        steam_until_min -> Nullable<Float8>,
        made_by -> Text,
        made_at -> Timestamptz,
    }
}

diesel::table! {
    bake_trace_probe (trace_id, place) {
        trace_id -> Uuid,
        place -> Int2,
        name -> Text,
        core_c -> Array<Float8>,
    }
}

diesel::table! {
    sample (id) {
        id -> Uuid,
        product_id -> Uuid,
        batch_id -> Nullable<Uuid>,
        bench_dough_id -> Nullable<Uuid>,
        loaf -> Int2,
        code -> Text,
        made_by -> Text,
        made_at -> Timestamptz,
    }
}

diesel::table! {
    bench_dough (id) {
        id -> Uuid,
        trial_id -> Uuid,
        bake -> Int2,
        variant -> Int2,
    }
}

diesel::table! {
    bake_trace_mark (id) {
        id -> Uuid,
        trace_id -> Uuid,
        probe -> Text,
        crossing -> Text,
        minute -> Nullable<Float8>,
        arrival_pct -> Nullable<Float8>,
        made_by -> Text,
        made_at -> Timestamptz,
    }
}

diesel::table! {
    batch_evidence (batch_id) {
        batch_id -> Uuid,
        features -> Jsonb,
        changed_in -> Int8,
    }
}

diesel::table! {
    drift (id) {
        id -> Uuid,
        product_id -> Uuid,
        line_id -> Uuid,
        feature -> Text,
        side -> Text,
        beyond -> Int4,
        looked_at -> Int4,
        mean -> Float8,
        batches -> Array<Uuid>,
        began_at -> Timestamptz,
        ended_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    drift_seen (id) {
        id -> Uuid,
        drift_id -> Uuid,
        seen_by -> Text,
        seen_at -> Timestamptz,
    }
}

diesel::table! {
    photograph (hash) {
        hash -> Text,
        media_type -> Text,
        width -> Int4,
        height -> Int4,
    }
}

diesel::table! {
    photograph_content (hash) {
        hash -> Text,
        content -> Bytea,
    }
}

diesel::table! {
    sample_photograph (id) {
        id -> Uuid,
        sample_id -> Uuid,
        hash -> Text,
        shows -> Text,
        taken_by -> Text,
        taken_at -> Timestamptz,
    }
}

diesel::table! {
    trial_kept (id) {
        id -> Uuid,
        trial_id -> Uuid,
        variant -> Int2,
        reason -> Text,
        formula_revision_id -> Nullable<Uuid>,
        method_revision_id -> Nullable<Uuid>,
        kept_by -> Text,
        kept_at -> Timestamptz,
    }
}

diesel::table! {
    score (id) {
        id -> Uuid,
        sample_id -> Uuid,
        round -> Int2,
        judge -> Text,
        person_id -> Nullable<Uuid>,
        note -> Text,
        scored_at -> Timestamptz,
    }
}

diesel::table! {
    score_mark (score_id, characteristic) {
        score_id -> Uuid,
        characteristic -> Text,
        mark -> Float8,
        sign -> Nullable<Text>,
        measured -> Nullable<Float8>,
    }
}

diesel::table! {
    fault_case (id) {
        id -> Uuid,
        batch_id -> Uuid,
        fault -> Text,
        cause -> Nullable<Text>,
        verdict -> Text,
        by_change -> Bool,
        note -> Text,
        made_by -> Text,
        made_at -> Timestamptz,
    }
}

diesel::table! {
    product_standard (id) {
        id -> Uuid,
        product_id -> Uuid,
        number -> Int4,
        standard -> Jsonb,
        made_at -> Timestamptz,
        made_by -> Text,
        reason -> Text,
    }
}

diesel::table! {
    batch_lot (batch_id, lot_id) {
        batch_id -> Uuid,
        lot_id -> Uuid,
        kg -> Nullable<Float8>,
    }
}

diesel::table! {
    learned_number (id) {
        id -> Uuid,
        subject -> Text,
        product_id -> Uuid,
        line_id -> Uuid,
        flour_id -> Uuid,
        number -> Int4,
        value -> Nullable<Float8>,
        sd -> Nullable<Float8>,
        batches -> Int4,
        begins_at -> Nullable<Timestamptz>,
        saved_at -> Timestamptz,
        saved_by -> Text,
        reason -> Text,
    }
}

diesel::table! {
    lot_disposition (id) {
        id -> Uuid,
        lot_id -> Uuid,
        decision -> Text,
        reason -> Text,
        made_by -> Text,
        made_at -> Timestamptz,
        lot_revision_id -> Nullable<Uuid>,
        specification_revision_id -> Nullable<Uuid>,
    }
}

diesel::table! {
    lot_stock (id) {
        id -> Uuid,
        lot_id -> Uuid,
        place -> Text,
        tonnes_left -> Float8,
        made_by -> Text,
        made_at -> Timestamptz,
    }
}

diesel::table! {
    trace (id) {
        id -> Uuid,
        lot_id -> Uuid,
        kind -> Text,
        source -> Text,
        input -> Jsonb,
        made_by -> Text,
        made_at -> Timestamptz,
    }
}

diesel::table! {
    trace_mark (id) {
        id -> Uuid,
        trace_id -> Uuid,
        mark -> Text,
        minute -> Nullable<Float8>,
        made_by -> Text,
        made_at -> Timestamptz,
    }
}

diesel::table! {
    mill_mapping (id) {
        id -> Uuid,
        mill -> Text,
        headers -> Array<Text>,
        mapping -> Jsonb,
        made_by -> Text,
        made_at -> Timestamptz,
    }
}

diesel::table! {
    blend_revision (id) {
        id -> Uuid,
        flour_id -> Uuid,
        number -> Int4,
        made_at -> Timestamptz,
        made_by -> Text,
        reason -> Text,
    }
}

diesel::table! {
    blend_part (revision_id, position) {
        revision_id -> Uuid,
        position -> Int2,
        flour_id -> Uuid,
        share_pct -> Float8,
    }
}

diesel::table! {
    lot_part (lot_id, position) {
        lot_id -> Uuid,
        position -> Int2,
        part_lot_id -> Uuid,
        share_pct -> Float8,
    }
}

diesel::table! {
    formula_flour (revision_id, position) {
        revision_id -> Uuid,
        position -> Int2,
        flour_id -> Uuid,
        share_pct -> Float8,
    }
}

diesel::table! {
    formula_part (revision_id, position) {
        revision_id -> Uuid,
        position -> Int2,
        kind -> Text,
        name -> Text,
        flour_id -> Nullable<Uuid>,
        flour_pct -> Float8,
        water_pct -> Float8,
        temperature_c -> Nullable<Float8>,
        rate -> Nullable<Float8>,
        preparation_id -> Uuid,
        vessel -> Nullable<Text>,
        water_c -> Nullable<Float8>,
        set_c -> Nullable<Float8>,
    }
}

diesel::table! {
    formula_part_line (revision_id, part, position) {
        revision_id -> Uuid,
        part -> Int2,
        position -> Int2,
        ingredient -> Text,
        pct -> Float8,
    }
}

diesel::table! {
    plant_parameters_revision (id) {
        id -> Uuid,
        number -> Int4,
        made_at -> Timestamptz,
        made_by -> Text,
        reason -> Text,
        parameters -> Jsonb,
    }
}

diesel::table! {
    batch_flour (batch_id, position) {
        batch_id -> Uuid,
        position -> Int2,
        lot_revision_id -> Uuid,
        specification_revision_id -> Nullable<Uuid>,
    }
}

diesel::table! {
    trial (id) {
        id -> Uuid,
        product_id -> Uuid,
        saved_at -> Timestamptz,
        saved_by -> Text,
        asked -> Jsonb,
        issued -> Jsonb,
    }
}

diesel::table! {
    written (id) {
        id -> Uuid,
        body_hash -> Binary,
        written_by -> Text,
        written_at -> Timestamptz,
        person_id -> Nullable<Uuid>,
        api_key_id -> Nullable<Uuid>,
        station_id -> Nullable<Uuid>,
        verified -> Bool,
    }
}

diesel::table! {
    person (id) {
        id -> Uuid,
        name -> Text,
        initials -> Text,
        email -> Text,
        password_hash -> Nullable<Text>,
        active -> Bool,
        demo -> Bool,
        made_at -> Timestamptz,
        pin_hash -> Nullable<Text>,
        totp_secret -> Nullable<Text>,
        totp_step -> Nullable<Int8>,
        deactivated_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    person_role (person_id, role) {
        person_id -> Uuid,
        role -> Text,
    }
}

diesel::table! {
    session (id) {
        id -> Uuid,
        token_hash -> Binary,
        person_id -> Uuid,
        made_at -> Timestamptz,
        seen_at -> Timestamptz,
        expires_at -> Timestamptz,
        confirmed_at -> Timestamptz,
    }
}

diesel::table! {
    api_key (id) {
        id -> Uuid,
        name -> Text,
        key_hash -> Binary,
        role -> Text,
        made_by -> Text,
        made_at -> Timestamptz,
        revoked_at -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    sign_in_failure (account, address) {
        account -> Text,
        address -> Text,
        failures -> Int4,
        failed_at -> Timestamptz,
    }
}

diesel::table! {
    setup_code (code_hash) {
        code_hash -> Binary,
        made_at -> Timestamptz,
    }
}

diesel::table! {
    audit_entry (id) {
        id -> Uuid,
        at -> Timestamptz,
        person_id -> Nullable<Uuid>,
        api_key_id -> Nullable<Uuid>,
        who -> Text,
        address -> Text,
        action -> Text,
        subject -> Text,
        record_id -> Nullable<Uuid>,
        revision_before -> Nullable<Int4>,
        revision_after -> Nullable<Int4>,
        details -> Nullable<Jsonb>,
        station_id -> Nullable<Uuid>,
        verified -> Bool,
    }
}

diesel::table! {
    station (id) {
        id -> Uuid,
        name -> Text,
        token_hash -> Binary,
        made_by -> Text,
        made_at -> Timestamptz,
        seen_at -> Timestamptz,
        expires_at -> Timestamptz,
        idle_minutes -> Int4,
    }
}

diesel::table! {
    station_presence (id) {
        id -> Uuid,
        station_id -> Uuid,
        person_id -> Uuid,
        since -> Timestamptz,
        until -> Nullable<Timestamptz>,
    }
}

diesel::table! {
    flour_revision (id) {
        id -> Uuid,
        flour_id -> Uuid,
        number -> Int4,
        made_at -> Timestamptz,
        made_by -> Text,
        reason -> Text,
        is_now -> Jsonb,
    }
}

diesel::table! {
    plant (singleton) {
        singleton -> Bool,
        prices -> Jsonb,
        time_zone -> Text,
        currency -> Text,
        week_starts -> Text,
        temperature_unit -> Text,
        mass_unit -> Text,
    }
}

diesel::joinable!(flour -> mill (mill_id));
diesel::joinable!(station_presence -> person (person_id));
diesel::joinable!(flour_revision -> flour (flour_id));
diesel::joinable!(specification_revision -> flour (flour_id));
diesel::joinable!(specification_limit -> specification_revision (revision_id));
diesel::joinable!(lot -> flour (flour_id));
diesel::joinable!(lot_revision -> lot (lot_id));
diesel::joinable!(reading -> lot_revision (lot_revision_id));
diesel::joinable!(lot_disposition -> lot (lot_id));
diesel::joinable!(lot_stock -> lot (lot_id));
diesel::joinable!(trace -> lot (lot_id));
diesel::joinable!(trace_mark -> trace (trace_id));
diesel::joinable!(blend_revision -> flour (flour_id));
diesel::joinable!(blend_part -> blend_revision (revision_id));
diesel::joinable!(formula_revision -> formula (formula_id));
diesel::joinable!(formula_line -> formula_revision (revision_id));
diesel::joinable!(method_revision -> method (method_id));
diesel::joinable!(method_stage -> method_revision (revision_id));
diesel::joinable!(line_revision -> line (line_id));
diesel::joinable!(product -> flour (flour_id));
diesel::joinable!(product -> formula (formula_id));
diesel::joinable!(product -> method (method_id));
diesel::joinable!(product -> line (line_id));
diesel::joinable!(batch -> product (product_id));
diesel::joinable!(batch_event -> batch (batch_id));
diesel::joinable!(batch_state -> batch (batch_id));
diesel::joinable!(batch_state -> product (product_id));
diesel::joinable!(batch_state -> line (line_id));
diesel::joinable!(batch_state -> lot (lot_id));
diesel::joinable!(batch_lot -> batch_state (batch_id));
diesel::joinable!(bake_trace -> batch_state (batch_id));
diesel::joinable!(bake_trace_probe -> bake_trace (trace_id));
diesel::joinable!(sample -> product (product_id));
diesel::joinable!(sample -> bench_dough (bench_dough_id));
diesel::joinable!(fault_case -> batch_state (batch_id));
diesel::joinable!(score -> sample (sample_id));
diesel::joinable!(bake_trace_mark -> bake_trace (trace_id));
diesel::joinable!(batch_evidence -> batch_state (batch_id));
diesel::joinable!(drift -> product (product_id));
diesel::joinable!(drift -> line (line_id));
diesel::joinable!(drift_seen -> drift (drift_id));
diesel::joinable!(photograph_content -> photograph (hash));
diesel::joinable!(score_mark -> score (score_id));
diesel::joinable!(batch_lot -> lot (lot_id));
diesel::joinable!(batch -> lot_revision (lot_revision_id));
diesel::joinable!(batch -> specification_revision (specification_revision_id));
diesel::joinable!(batch -> formula_revision (formula_revision_id));
diesel::joinable!(batch -> method_revision (method_revision_id));
diesel::joinable!(batch -> line_revision (line_revision_id));
diesel::joinable!(formula_flour -> flour (flour_id));
diesel::joinable!(formula_part -> flour (flour_id));
diesel::joinable!(trial -> product (product_id));
diesel::joinable!(session -> person (person_id));

diesel::allow_tables_to_appear_in_same_query!(
    bake_trace,
    bake_trace_mark,
    bake_trace_probe,
    sample,
    bench_dough,
    batch_evidence,
    drift,
    drift_seen,
    photograph,
    photograph_content,
    sample_photograph,
    trial_kept,
    score,
    score_mark,
    product_standard,
    fault_case,
    mill,
    flour,
    flour_revision,
    specification_revision,
    specification_limit,
    lot,
    lot_revision,
    reading,
    lot_disposition,
    lot_stock,
    lot_part,
    trace,
    trace_mark,
    mill_mapping,
    blend_revision,
    blend_part,
    formula,
    formula_revision,
    formula_line,
    method,
    method_revision,
    method_stage,
    dough_temperature,
    line,
    line_revision,
    product,
    batch,
    formula_flour,
    formula_part,
    formula_part_line,
    plant_parameters_revision,
    batch_flour,
    batch_event,
    batch_state,
    batch_lot,
    learned_number,
    trial,
);
diesel::allow_tables_to_appear_in_same_query!(person, person_role, session, station_presence);
