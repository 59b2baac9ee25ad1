CREATE TABLE "shops" (
	"number" integer PRIMARY KEY NOT NULL,
	"file" jsonb NOT NULL,
	"save_key" uuid NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "shops_save_key_unique" UNIQUE("save_key")
);
