CREATE EXTENSION IF NOT EXISTS pg_trgm;--> statement-breakpoint
CREATE TABLE "log_entries" (
	"run" text PRIMARY KEY NOT NULL,
	"up_to" integer NOT NULL,
	"version" integer NOT NULL,
	"done_at" timestamp with time zone NOT NULL,
	"schools" text[] NOT NULL,
	"media" text[] NOT NULL,
	"colours" text[] NOT NULL,
	"verdict" text,
	"spacing_mm" real,
	"chipped" real,
	"humidity" real,
	"entry" jsonb NOT NULL,
	"words" text NOT NULL,
	"search" "tsvector" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "log_words" (
	"word" text PRIMARY KEY NOT NULL
);
--> statement-breakpoint
CREATE TABLE "photos" (
	"hash" text PRIMARY KEY NOT NULL,
	"type" text NOT NULL,
	"size" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"screen" "bytea"
);
--> statement-breakpoint
ALTER TABLE "log_entries" ADD CONSTRAINT "log_entries_run_runs_id_fk" FOREIGN KEY ("run") REFERENCES "public"."runs"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "log_search" ON "log_entries" USING gin ("search");--> statement-breakpoint
CREATE INDEX "log_words_like" ON "log_words" USING gin ("word" gin_trgm_ops);