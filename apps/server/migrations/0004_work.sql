CREATE TABLE "work_rows" (
	"id" uuid PRIMARY KEY NOT NULL,
	"blade_id" uuid NOT NULL,
	"recorded_at" timestamp with time zone NOT NULL,
	"stage" text NOT NULL,
	"what" text NOT NULL,
	"row" jsonb NOT NULL,
	"struck_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "work_rows" ADD CONSTRAINT "work_rows_blade_id_blades_id_fk" FOREIGN KEY ("blade_id") REFERENCES "public"."blades"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "work_rows_blade" ON "work_rows" USING btree ("blade_id","recorded_at");