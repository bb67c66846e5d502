CREATE TABLE "attempt" (
	"key_hash" text PRIMARY KEY NOT NULL,
	"made" integer NOT NULL,
	"next_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "column_name" (
	"studio_id" uuid NOT NULL,
	"heading" text NOT NULL,
	"means" text NOT NULL,
	"unit" text,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "column_name_studio_id_heading_pk" PRIMARY KEY("studio_id","heading"),
	CONSTRAINT "column_name_length" CHECK (length("column_name"."heading") between 1 and 120 and length("column_name"."means") <= 60)
);
--> statement-breakpoint
CREATE TABLE "data_import" (
	"id" uuid PRIMARY KEY NOT NULL,
	"studio_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"file_name" text NOT NULL,
	"brought_by" uuid NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"clients" integer NOT NULL,
	"checkins" integer NOT NULL,
	"readings" integer NOT NULL,
	"weigh_ins" integer NOT NULL,
	"taken_back_at" timestamp with time zone,
	"taken_back_by" uuid,
	CONSTRAINT "data_import_kind" CHECK ("data_import"."kind" in ('table', 'readings', 'fhir', 'archive')),
	CONSTRAINT "data_import_file" CHECK (length("data_import"."file_name") between 1 and 200),
	CONSTRAINT "data_import_taken_back" CHECK (("data_import"."taken_back_at" is null) = ("data_import"."taken_back_by" is null))
);
--> statement-breakpoint
CREATE TABLE "imported_item" (
	"import_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"item_id" uuid NOT NULL,
	"facts" integer DEFAULT 0 NOT NULL,
	CONSTRAINT "imported_item_import_id_item_id_pk" PRIMARY KEY("import_id","item_id"),
	CONSTRAINT "imported_item_kind" CHECK ("imported_item"."kind" in ('client', 'checkin', 'weigh-in'))
);
--> statement-breakpoint
ALTER TABLE "studio" ADD COLUMN "retention" jsonb DEFAULT '{"clientMonths":null,"photoMonths":null}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "column_name" ADD CONSTRAINT "column_name_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "data_import" ADD CONSTRAINT "data_import_studio_id_studio_id_fk" FOREIGN KEY ("studio_id") REFERENCES "public"."studio"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "data_import" ADD CONSTRAINT "data_import_brought_by_staff_id_fk" FOREIGN KEY ("brought_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "data_import" ADD CONSTRAINT "data_import_taken_back_by_staff_id_fk" FOREIGN KEY ("taken_back_by") REFERENCES "public"."staff"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "imported_item" ADD CONSTRAINT "imported_item_import_id_data_import_id_fk" FOREIGN KEY ("import_id") REFERENCES "public"."data_import"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "attempt_next" ON "attempt" USING btree ("next_at");--> statement-breakpoint
CREATE INDEX "data_import_studio" ON "data_import" USING btree ("studio_id","at");