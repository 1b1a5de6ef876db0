CREATE TABLE "photo_pieces" (
	"hash" text NOT NULL,
	"screen" boolean NOT NULL,
	"n" integer NOT NULL,
	"bytes" "bytea" NOT NULL,
	"put_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "photo_pieces_hash_screen_n_pk" PRIMARY KEY("hash","screen","n")
);
--> statement-breakpoint
ALTER TABLE "photos" ALTER COLUMN "bytes" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "photos" ADD COLUMN "screen_size" integer;--> statement-breakpoint
ALTER TABLE "plans" ADD COLUMN "save_id" uuid DEFAULT gen_random_uuid() NOT NULL;