CREATE TABLE "calibrations" (
	"id" serial PRIMARY KEY NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	"file" jsonb NOT NULL
);
