/* A clip that is open, as the stages of playing it share it: opening, reading, decoding, seeking. */
#ifndef HB_CLIP_H
#define HB_CLIP_H

#include <time.h>

#include <libavcodec/avcodec.h>
#include <libavformat/avformat.h>

#include "hardybench.h"

#define SENT_SLOTS 256 /* more than any decoder holds back */
#define MOST_WANTED 64 /* frames asked for one by one whose data was not read yet */
#define MOST_PIXELS (16384LL * 8704) /* of a picture; the tallest level of HEVC has a quarter of it */
#define MOST_ROUNDS_WITHOUT_ANY 2 /* times that a file is read through for one picture */

struct HbClip {
    AVFormatContext *format;
    AVCodecContext *codec;
    AVStream *stream;
    AVPacket *packet;
    char *path;
    AVRational rate;
    int64_t start;        /* time stamp of frame 0, within the first loop */
    int64_t frame_count;  /* slots of one loop, or 0 while it is not known */
    int64_t loop;         /* loops before the one that is read */
    int64_t span;         /* time stamps of a loop are those of the file and this many a loop before it; 0 in the first */
    int64_t last_stamp;   /* the latest time stamp read in any loop, without loops */
    int64_t read_in_loop; /* packets read since the start of the file */
    int64_t highest;      /* the highest frame number given so far */
    int64_t wanted[MOST_WANTED]; /* where reading goes on, ascending: packets before the first are passed over, and once it is read those
                           * before the next; after the last reading goes on in order */
    int wanted_count;
    int64_t active_ns;    /* time spent reading and decoding since the clip was opened */
    _Atomic int64_t read_ns;       /* time spent in reads that have ended */
    _Atomic int64_t reading_since; /* when the read under way began; 0 while there is none */
    int64_t next_number;  /* the number after the highest that was sent to the decoder */
    int64_t deadline_ns;  /* when the present call is given up */
    int has_start;        /* start is known, not only guessed from the container */
    int landing;          /* where seeking ended is not known yet */
    int sought;           /* the file was not read from its start, so packets tell nothing of its length */
    int looked;           /* a loop was read from its start to its end */
    int open_ended;       /* a loop cannot follow another without emptying the decoder between them */
    int draining;         /* the file is at its end and the decoder gives what it still holds */
    int emptying;         /* it gives what it holds, and nothing more is read */
    int width, height, pixel_format; /* of the first picture given; those after it have to be alike */
    volatile int given_up; /* somebody wants the present call to end */
    enum AVPixelFormat device_format; /* of frames on the device, or NONE */
    char refusal[160];    /* why the device asked for does not decode */
    int64_t errors;       /* packets or frames that the decoder called damaged */
    int64_t first_error;  /* the frame of the first of them */
    int errors_in_a_row;
    int64_t sent_at[SENT_SLOTS]; /* active_ns when a frame's packet was sent, by number */
    int64_t skip_before; /* Frames numbered below it are left out where nothing refers to them. */
};

static inline int64_t now_ns(void)
{
    struct timespec t;
    clock_gettime(CLOCK_MONOTONIC, &t);
    return t.tv_sec * INT64_C(1000000000) + t.tv_nsec;
}

/* device.c */

void ask_device(HbClip *clip, const AVCodec *decoder, const char *device);

/* decoder.c */

int open_decoder(HbClip *clip, int threads, int one_by_one, const char *device);

/* open.c */

/* Opens the file with all that keeps it from reaching anything else, and finds out about its streams. */
int open_file(HbClip *clip, const HbOpening *how);

/* The stream that was chosen when the clip was looked into, or the best where nobody has chosen. */
int choose_stream(HbClip *clip, int wanted);

/* read.c */

/* The frame of a time stamp of the file within its loop. */
int64_t frame_in_loop(const HbClip *clip, int64_t stamp);

/* The frame of a time stamp that has the loops before it added. */
int64_t frame_of(const HbClip *clip, int64_t stamp);

void begin_call(HbClip *clip);

/* Transport and program streams are sought by trying. */
int without_index(const HbClip *clip);

/* Goes back to the start of the file: by its time stamps, else by its bytes, else by opening it anew. */
int rewind_file(HbClip *clip);

/* At the end of the file: what was read has to be all of it, and the loop's length is known from now on. */
int end_loop(HbClip *clip);

int begin_loop(HbClip *clip);

int64_t loop_of(const HbClip *clip, int64_t number);

int64_t within_loop(const HbClip *clip, int64_t number);

int64_t last_wanted(const HbClip *clip);

int64_t moment_of(const HbClip *clip, int64_t within);

/* Reads the next packet that is wanted, going round at the end of the file. AVERROR_EOF when the decoder has to be emptied first.
 * number becomes the frame that the packet holds, so far as its time stamps tell. */
int read_packet(HbClip *clip, int64_t *number);

#endif
