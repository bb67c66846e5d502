CREATE TABLE "deleted_rows" (
	"table_name" text PRIMARY KEY NOT NULL,
	"rows" bigint NOT NULL
);
--> statement-breakpoint
CREATE FUNCTION "count_deleted_rows"() RETURNS trigger LANGUAGE plpgsql AS $$
DECLARE
	"more" bigint;
BEGIN
	SELECT count(*) INTO "more" FROM "gone";
	IF "more" > 0 THEN
		INSERT INTO "deleted_rows" ("table_name", "rows") VALUES (TG_TABLE_NAME, "more")
		ON CONFLICT ("table_name") DO UPDATE SET "rows" = "deleted_rows"."rows" + "more";
	END IF;
	RETURN NULL;
END $$;--> statement-breakpoint
DO $$
DECLARE
	"one" text;
BEGIN
	FOREACH "one" IN ARRAY ARRAY[
		'studio', 'audit', 'audit_chain', 'caliper', 'column_name', 'device_key', 'staff', 'away', 'calendar_link',
		'caliper_check', 'caliper_correction', 'challenge', 'client', 'booking', 'caution_flag', 'challenge_entry',
		'client_choice', 'client_link', 'client_schedule', 'data_import', 'drill_round', 'hand_in', 'coach_line',
		'home_girth', 'home_photo', 'imported_item', 'intake', 'landmark_note', 'mail', 'neutral_leave',
		'other_measurement', 'passkey', 'pin', 'recovery_code', 'reminder_choice', 'second_factor', 'studio_set', 'study',
		'checkin', 'photo', 'pinned_start', 'plan', 'reading', 'remark', 'skip', 'strike', 'study_pen', 'study_person',
		'study_turn', 'training_plan', 'weigh_in'
	] LOOP
		EXECUTE format(
			'CREATE TRIGGER deleted_counted AFTER DELETE ON %I REFERENCING OLD TABLE AS gone FOR EACH STATEMENT EXECUTE FUNCTION count_deleted_rows()',
			"one"
		);
	END LOOP;
END $$;
