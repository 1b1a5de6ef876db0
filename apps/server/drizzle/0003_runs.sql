CREATE TABLE "run_events" (
	"run" text NOT NULL,
	"seq" integer NOT NULL,
	"id" text NOT NULL,
	"device" text NOT NULL,
	"n" integer NOT NULL,
	"event" jsonb NOT NULL,
	CONSTRAINT "run_events_run_seq_pk" PRIMARY KEY("run","seq"),
	CONSTRAINT "run_events_id_unique" UNIQUE("id"),
	CONSTRAINT "run_events_device_n_unique" UNIQUE("device","n")
);
--> statement-breakpoint
CREATE TABLE "runs" (
	"id" text PRIMARY KEY NOT NULL,
	"plan_id" text,
	"name" text NOT NULL,
	"begun_at" timestamp with time zone NOT NULL,
	"events" integer DEFAULT 0 NOT NULL
);
--> statement-breakpoint
ALTER TABLE "run_events" ADD CONSTRAINT "run_events_run_runs_id_fk" FOREIGN KEY ("run") REFERENCES "public"."runs"("id") ON DELETE no action ON UPDATE no action;