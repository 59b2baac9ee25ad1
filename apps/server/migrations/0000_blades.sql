CREATE TABLE "blades" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"use" text,
	"steel" text,
	"state" text DEFAULT 'design' NOT NULL,
	"revision" integer NOT NULL,
	"summary" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	"archived_at" timestamp with time zone,
	"deleted_at" timestamp with time zone,
	CONSTRAINT "blades_state" CHECK ("blades"."state" in ('design', 'in work', 'finished'))
);
--> statement-breakpoint
CREATE TABLE "revisions" (
	"blade_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"file" jsonb NOT NULL,
	"save_key" uuid NOT NULL,
	"label" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "revisions_blade_id_number_pk" PRIMARY KEY("blade_id","number")
);
--> statement-breakpoint
ALTER TABLE "revisions" ADD CONSTRAINT "revisions_blade_id_blades_id_fk" FOREIGN KEY ("blade_id") REFERENCES "public"."blades"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "blades_updated" ON "blades" USING btree ("updated_at");--> statement-breakpoint
CREATE UNIQUE INDEX "revisions_save_key" ON "revisions" USING btree ("blade_id","save_key");