CREATE TABLE "readings" (
	"id" uuid PRIMARY KEY NOT NULL,
	"blade_id" uuid NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"stage" text NOT NULL,
	"spot" text NOT NULL,
	"reading" jsonb NOT NULL,
	"struck_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "runs" (
	"id" uuid NOT NULL,
	"number" integer NOT NULL,
	"file" jsonb,
	"save_key" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "runs_id_number_pk" PRIMARY KEY("id","number")
);
--> statement-breakpoint
ALTER TABLE "readings" ADD CONSTRAINT "readings_blade_id_blades_id_fk" FOREIGN KEY ("blade_id") REFERENCES "public"."blades"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "readings_blade" ON "readings" USING btree ("blade_id","taken_at");--> statement-breakpoint
CREATE INDEX "readings_spot" ON "readings" USING btree ("blade_id","stage","spot");--> statement-breakpoint
CREATE UNIQUE INDEX "runs_save_key" ON "runs" USING btree ("id","save_key");