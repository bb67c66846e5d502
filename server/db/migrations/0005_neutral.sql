CREATE TABLE "neutral_leave" (
	"id" uuid PRIMARY KEY NOT NULL,
	"client_id" uuid NOT NULL,
	"reason" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"left_by" uuid NOT NULL,
	CONSTRAINT "neutral_leave_reason" CHECK (length("neutral_leave"."reason") between 1 and 300)
);
--> statement-breakpoint
ALTER TABLE "neutral_leave" ADD CONSTRAINT "neutral_leave_client_id_client_id_fk" FOREIGN KEY ("client_id") REFERENCES "public"."client"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "neutral_leave" ADD CONSTRAINT "neutral_leave_left_by_staff_id_fk" FOREIGN KEY ("left_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "neutral_leave_client" ON "neutral_leave" USING btree ("client_id","at");