CREATE TABLE "shelf_items" (
	"id" text PRIMARY KEY NOT NULL,
	"item" jsonb NOT NULL,
	"put_at" timestamp with time zone DEFAULT now() NOT NULL
);
