ALTER TABLE "reading" DROP CONSTRAINT "reading_method";--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_method" CHECK ("reading"."method" in ('as-it-is', 'underside-supported', 'leg-straight', 'assistant-lifts'));--> statement-breakpoint
UPDATE "reading" r SET "site" = CASE
	WHEN r."site" = 'biceps' THEN 'biceps-kin'
	WHEN r."site" = 'triceps' THEN 'triceps-kin'
	WHEN n."note" ~* '(mid|half)' THEN 'mid-thigh-girth'
	WHEN n."note" ~* '(buttock|glute|upper|1 ?cm)' THEN 'thigh-girth'
	ELSE 'thigh-unsaid' END
FROM "checkin" c LEFT JOIN "landmark_note" n ON n."client_id" = c."client_id" AND n."site" = 'thigh-girth'
WHERE c."id" = r."checkin_id" AND (
	r."site" IN ('biceps', 'thigh-girth')
	OR (r."site" = 'triceps' AND c."protocol_id" IN ('kinanthropometry-8', 'kinanthropometry-8-girths', 'athlete-7', 'athlete-6', 'athlete-4', 'swimmers-4')));--> statement-breakpoint
UPDATE "skip" s SET "site" = CASE
	WHEN s."site" = 'biceps' THEN 'biceps-kin'
	WHEN s."site" = 'triceps' THEN 'triceps-kin'
	ELSE 'mid-thigh-girth' END
FROM "checkin" c
WHERE c."id" = s."checkin_id" AND (
	s."site" = 'biceps'
	OR (s."site" = 'triceps' AND c."protocol_id" IN ('kinanthropometry-8', 'kinanthropometry-8-girths', 'athlete-7', 'athlete-6', 'athlete-4', 'swimmers-4'))
	OR (s."site" = 'thigh-girth' AND c."protocol_id" IN ('laboratory-7-tape', 'kinanthropometry-8-girths')));--> statement-breakpoint
UPDATE "home_girth" g SET "site" = CASE
	WHEN n."note" ~* '(mid|half)' THEN 'mid-thigh-girth'
	ELSE 'thigh-unsaid' END
FROM "hand_in" h LEFT JOIN "landmark_note" n ON n."client_id" = h."client_id" AND n."site" = 'thigh-girth'
WHERE h."id" = g."hand_in_id" AND g."site" = 'thigh-girth' AND (n."note" IS NULL OR n."note" !~* '(buttock|glute|upper|1 ?cm)');--> statement-breakpoint
INSERT INTO "landmark_note" ("client_id", "site", "note", "changed_at")
SELECT "client_id", 'triceps-kin', "note", "changed_at" FROM "landmark_note" WHERE "site" = 'triceps' ON CONFLICT DO NOTHING;--> statement-breakpoint
UPDATE "landmark_note" SET "site" = 'biceps-kin' WHERE "site" = 'biceps';--> statement-breakpoint
UPDATE "landmark_note" SET "site" = 'mid-thigh-girth' WHERE "site" = 'thigh-girth' AND "note" ~* '(mid|half)';--> statement-breakpoint
UPDATE "studio_set" SET "sites" = replace("sites"::text, '"biceps"', '"biceps-kin"')::jsonb WHERE "sites"::text LIKE '%"biceps"%';--> statement-breakpoint
UPDATE "study" SET "sites" = replace("sites"::text, '"biceps"', '"biceps-kin"')::jsonb WHERE "sites"::text LIKE '%"biceps"%';--> statement-breakpoint
UPDATE "study" SET "sites" = replace("sites"::text, '"triceps"', '"triceps-kin"')::jsonb
WHERE "protocol_id" IN ('kinanthropometry-8', 'kinanthropometry-8-girths', 'athlete-7', 'athlete-6', 'athlete-4', 'swimmers-4') AND "sites"::text LIKE '%"triceps"%';--> statement-breakpoint
UPDATE "study" SET "sites" = replace("sites"::text, '"thigh-girth"', '"mid-thigh-girth"')::jsonb
WHERE "protocol_id" IN ('laboratory-7-tape', 'kinanthropometry-8-girths') AND "sites"::text LIKE '%"thigh-girth"%';
