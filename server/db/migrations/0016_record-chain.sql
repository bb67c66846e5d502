CREATE TABLE "audit_chain" (
	"studio_id" uuid NOT NULL,
	"seq" integer NOT NULL,
	"audit_id" uuid NOT NULL,
	"hash" text NOT NULL,
	CONSTRAINT "audit_chain_studio_id_seq_pk" PRIMARY KEY("studio_id","seq"),
	CONSTRAINT "audit_chain_hash" CHECK ("audit_chain"."hash" ~ '^[0-9a-f]{64}$')
);
--> statement-breakpoint
ALTER TABLE "audit_chain" ADD CONSTRAINT "audit_chain_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "audit_chain" ADD CONSTRAINT "audit_chain_audit_id_audit_id_fk" FOREIGN KEY ("audit_id") REFERENCES "public"."audit"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "audit_chain_row" ON "audit_chain" USING btree ("audit_id");--> statement-breakpoint
CREATE FUNCTION "audit_chain_row"("one" "audit") RETURNS void LANGUAGE plpgsql AS $$
DECLARE
	"last" "audit_chain"%ROWTYPE;
BEGIN
	SELECT * INTO "last" FROM "audit_chain" WHERE "studio_id" = "one"."studio_id" ORDER BY "seq" DESC LIMIT 1;
	INSERT INTO "audit_chain" ("studio_id", "seq", "audit_id", "hash") VALUES (
		"one"."studio_id",
		coalesce("last"."seq", 0) + 1,
		"one"."id",
		encode(sha256(convert_to(coalesce("last"."hash", '') || E'\n' || concat_ws('|',
			"one"."id", "one"."studio_id",
			to_char("one"."at" AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'),
			"one"."actor", coalesce("one"."staff_id"::text, ''), "one"."kind",
			coalesce("one"."client_id"::text, ''), coalesce("one"."checkin_id"::text, ''),
			coalesce("one"."subject_id"::text, '')
		), 'UTF8')), 'hex')
	);
END $$;--> statement-breakpoint
CREATE FUNCTION "audit_chain_loose"() RETURNS void LANGUAGE plpgsql AS $$
DECLARE
	"one" "audit"%ROWTYPE;
BEGIN
	FOR "one" IN
		SELECT "a".* FROM "audit" "a" LEFT JOIN "audit_chain" "c" ON "c"."audit_id" = "a"."id"
		WHERE "c"."audit_id" IS NULL ORDER BY "a"."id"
	LOOP
		PERFORM "audit_chain_row"("one");
	END LOOP;
END $$;--> statement-breakpoint
SELECT "audit_chain_loose"();--> statement-breakpoint
CREATE FUNCTION "audit_chain_on"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	-- A restore brings the rows' own chain with it.
	IF current_setting('oak_pinch.restoring', true) = 'on' THEN RETURN NULL; END IF;
	PERFORM "audit_chain_row"(NEW);
	RETURN NULL;
END $$;--> statement-breakpoint
CREATE TRIGGER "audit_chained" AFTER INSERT ON "audit" FOR EACH ROW EXECUTE FUNCTION "audit_chain_on"();--> statement-breakpoint
CREATE FUNCTION "audit_only_added_to"() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
	RAISE EXCEPTION 'The record is only added to.' USING ERRCODE = '55000';
END $$;--> statement-breakpoint
CREATE TRIGGER "audit_kept" BEFORE UPDATE OR DELETE ON "audit" FOR EACH ROW EXECUTE FUNCTION "audit_only_added_to"();--> statement-breakpoint
CREATE TRIGGER "audit_not_emptied" BEFORE TRUNCATE ON "audit" FOR EACH STATEMENT EXECUTE FUNCTION "audit_only_added_to"();--> statement-breakpoint
CREATE TRIGGER "audit_chain_kept" BEFORE UPDATE OR DELETE ON "audit_chain" FOR EACH ROW EXECUTE FUNCTION "audit_only_added_to"();--> statement-breakpoint
CREATE TRIGGER "audit_chain_not_emptied" BEFORE TRUNCATE ON "audit_chain" FOR EACH STATEMENT EXECUTE FUNCTION "audit_only_added_to"();
