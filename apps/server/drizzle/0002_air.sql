CREATE TABLE "air_readings" (
	"source" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"temperature_c" real NOT NULL,
	"humidity" real NOT NULL,
	CONSTRAINT "air_readings_at_source_pk" PRIMARY KEY("at","source")
);
