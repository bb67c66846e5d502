CREATE TABLE "plan_decision" (
	"id" uuid PRIMARY KEY NOT NULL,
	"plan_id" uuid NOT NULL,
	"codes" jsonb NOT NULL,
	"reason" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"decided_by" uuid NOT NULL,
	CONSTRAINT "plan_decision_reason" CHECK (length("plan_decision"."reason") between 1 and 300)
);
--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "guardian_name" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "guardian_consent_on" date;--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "guardian_photo_consent_on" date;--> statement-breakpoint
ALTER TABLE "client" ADD COLUMN "preparation" jsonb;--> statement-breakpoint
ALTER TABLE "client_link" ADD COLUMN "reason" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "client_link" ADD COLUMN "reason_for" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "plan_decision" ADD CONSTRAINT "plan_decision_plan_id_plan_id_fk" FOREIGN KEY ("plan_id") REFERENCES "public"."plan"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_decision" ADD CONSTRAINT "plan_decision_decided_by_staff_id_fk" FOREIGN KEY ("decided_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "plan_decision_plan" ON "plan_decision" USING btree ("plan_id","at");--> statement-breakpoint
ALTER TABLE "client" ADD CONSTRAINT "client_guardian_name" CHECK (length("client"."guardian_name") <= 120);--> statement-breakpoint
ALTER TABLE "client_link" ADD CONSTRAINT "client_link_reason" CHECK (length("client_link"."reason") <= 300);--> statement-breakpoint
CREATE TRIGGER deleted_counted AFTER DELETE ON "plan_decision" REFERENCING OLD TABLE AS gone FOR EACH STATEMENT EXECUTE FUNCTION count_deleted_rows();
