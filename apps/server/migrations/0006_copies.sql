CREATE TABLE "copies" (
	"id" serial PRIMARY KEY NOT NULL,
	"started_at" timestamp with time zone DEFAULT now() NOT NULL,
	"ended_at" timestamp with time zone,
	"file" text,
	"bytes" bigint,
	"is_good" boolean DEFAULT false NOT NULL,
	"why" text
);
--> statement-breakpoint
CREATE TABLE "copy_settings" (
	"id" integer PRIMARY KEY NOT NULL,
	"folder" text NOT NULL
);
