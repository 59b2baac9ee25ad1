CREATE TABLE "documents" (
	"blade_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"number" integer NOT NULL,
	"file" jsonb NOT NULL,
	"save_key" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "documents_blade_id_kind_number_pk" PRIMARY KEY("blade_id","kind","number")
);
--> statement-breakpoint
ALTER TABLE "documents" ADD CONSTRAINT "documents_blade_id_blades_id_fk" FOREIGN KEY ("blade_id") REFERENCES "public"."blades"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "documents_save_key" ON "documents" USING btree ("blade_id","kind","save_key");