#define _GNU_SOURCE
#include "hardybench.h"

#include <errno.h>
#include <fcntl.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/mman.h>
#include <sys/stat.h>
#include <sys/resource.h>
#include <sys/syscall.h>
#include <time.h>
#include <unistd.h>

#include <libavcodec/avcodec.h>
#include <libavfilter/avfilter.h>
#include <libavfilter/buffersink.h>
#include <libavfilter/buffersrc.h>
#include <libavformat/avformat.h>
#include <libavutil/hwcontext.h>
#include <libavutil/imgutils.h>
#include <libavutil/opt.h>
#include <libavutil/pixdesc.h>
#include <libswscale/swscale.h>

#define SENT_SLOTS 256 /* more than any decoder holds back */
#define MOST_THREADS_FOR_ROWS 4 /* each row of an HEVC picture waits for the one above, so that more threads do better on several pictures */
#define MOST_WANTED 64 /* frames asked for one by one whose data was not read yet */
#define MOST_ERRORS_IN_A_ROW 250 /* after so many packets that gave no frame a clip is not worth going on with */
#define MOST_PIXELS (16384LL * 8704) /* of a picture; the tallest level of HEVC has a quarter of it */
#define MOST_STREAMS "64"
#define HB_NONE_HELD 1
#define SEEK_OVER 8 /* more packets than this are not read only to be passed over, where the file has an index */
#define LANDING_SECONDS 3 /* so far before what is wanted a seek without an index aims */
#define MOST_ROUNDS_WITHOUT_ANY 2 /* times that a file is read through for one picture */
#define LONGEST_CALL_NS (30LL * 1000000000) /* a call that reads for longer is given up */

/* What may be opened: files, in containers that hold pictures themselves. Lists of other files, playlists and numbered pictures
 * would lead out of the file, and bare streams have no time stamps. */
#define PROTOCOLS "file"
#define CONTAINERS "mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,mpegts,mpeg,mxf,avi,asf,flv,ogg,ivf,dv,png_pipe,jpeg_pipe,j2k_pipe," \
    "tiff_pipe,dpx_pipe,exr_pipe,bmp_pipe,gif,yuv4mpegpipe"

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

struct HbGraph {
    AVFilterGraph *graph;
    AVFilterContext **sources;
    AVFilterContext *sink;
    HbInput *taken; /* what each input was set up for */
    int inputs;
};

static int64_t now_ns(void)
{
    struct timespec t;
    clock_gettime(CLOCK_MONOTONIC, &t);
    return t.tv_sec * INT64_C(1000000000) + t.tv_nsec;
}

const char *hb_library_versions(void)
{
    static char text[96];
    unsigned c = avcodec_version(), f = avformat_version(), a = avfilter_version();
    av_log_set_level(AV_LOG_QUIET);
    snprintf(text, sizeof text, "libavcodec %u.%u, libavformat %u.%u, libavfilter %u.%u",
             c >> 16, c >> 8 & 255, f >> 16, f >> 8 & 255, a >> 16, a >> 8 & 255);
    return text;
}

void hb_error_text(int code, char *text, int size)
{
    if (code == HB_NO_VIDEO)
        snprintf(text, size, "there is no video in it");
    else if (code == HB_TRUNCATED)
        snprintf(text, size, "it ends before its last frame");
    else if (code == HB_CHANGED)
        snprintf(text, size, "its raster or pixel format changes in mid-stream, which cannot be played; convert it to one of them");
    else if (code == HB_OTHER_STREAM)
        snprintf(text, size, "it does not hold the stream that it did when it was looked into; bring it again");
    else if (code == AVERROR_EXIT)
        snprintf(text, size, "reading it was given up, because it took too long or playing was stopped");
    else
        av_strerror(code, text, size);
}

/* ---- clips ---- */

/* The frame of a time stamp of the file within its loop. */
static int64_t frame_in_loop(const HbClip *clip, int64_t stamp)
{
    return av_rescale_q_rnd(stamp - clip->start, clip->stream->time_base, av_inv_q(clip->rate), AV_ROUND_NEAR_INF);
}

/* The frame of a time stamp that has the loops before it added. */
static int64_t frame_of(const HbClip *clip, int64_t stamp)
{
    /* A loop's stamps fill less than half of the span, so those a little before its start still belong to it. */
    int64_t from_start = stamp - clip->start;
    int64_t loop = clip->span == 0 ? 0 : (from_start + clip->span / 2) / clip->span;
    return loop * clip->frame_count + frame_in_loop(clip, stamp - loop * clip->span);
}

static int is_over(void *opaque)
{
    const HbClip *clip = opaque;
    return clip->given_up || now_ns() > clip->deadline_ns;
}

static void begin_call(HbClip *clip)
{
    clip->deadline_ns = now_ns() + LONGEST_CALL_NS;
}

void hb_clip_give_up(HbClip *clip)
{
    clip->given_up = 1;
}

int64_t hb_clip_reading(const HbClip *clip)
{
    int64_t since = clip->reading_since;
    return clip->read_ns + (since ? now_ns() - since : 0);
}

/* Takes the device's format if the decoder offers it, else the first that lies in main memory. */
static enum AVPixelFormat choose_format(AVCodecContext *codec, const enum AVPixelFormat *offered)
{
    HbClip *clip = codec->opaque;
    const enum AVPixelFormat *format;
    for (format = offered; *format != AV_PIX_FMT_NONE; format++)
        if (*format == clip->device_format)
            return *format;
    if (!clip->refusal[0])
        snprintf(clip->refusal, sizeof clip->refusal, "the device does not take this raster, chroma or depth");
    for (format = offered; *format != AV_PIX_FMT_NONE; format++)
        if (!(av_pix_fmt_desc_get(*format)->flags & AV_PIX_FMT_FLAG_HWACCEL))
            return *format;
    return AV_PIX_FMT_NONE;
}

static void ask_device(HbClip *clip, const AVCodec *decoder, const char *device)
{
    enum AVHWDeviceType type = av_hwdevice_find_type_by_name(device);
    const AVCodecHWConfig *config;
    char why[96];
    int code;
    if (type == AV_HWDEVICE_TYPE_NONE) {
        snprintf(clip->refusal, sizeof clip->refusal, "these libraries know no device '%.40s'", device);
        return;
    }
    for (int i = 0;; i++) {
        if (!(config = avcodec_get_hw_config(decoder, i))) {
            snprintf(clip->refusal, sizeof clip->refusal, "there is no decoder of this codec for %.40s", device);
            return;
        }
        if (config->device_type == type && config->methods & AV_CODEC_HW_CONFIG_METHOD_HW_DEVICE_CTX)
            break;
    }
    if ((code = av_hwdevice_ctx_create(&clip->codec->hw_device_ctx, type, NULL, NULL, 0)) < 0) {
        av_strerror(code, why, sizeof why);
        snprintf(clip->refusal, sizeof clip->refusal, "%.30s cannot be opened: %.90s", device, why);
        return;
    }
    clip->device_format = config->pix_fmt;
    clip->codec->opaque = clip;
    clip->codec->get_format = choose_format;
}

/* The bits of a unit of an HEVC stream, without the bytes that keep start codes out of it. */
typedef struct {
    const uint8_t *data;
    int size, bit, zeros;
} Bits;

static unsigned take_bit(Bits *b)
{
    unsigned bit;
    if (b->bit % 8 == 0 && b->bit > 0) {
        b->zeros = b->data[b->bit / 8 - 1] == 0 ? b->zeros + 1 : 0;
        if (b->zeros >= 2 && b->bit / 8 < b->size && b->data[b->bit / 8] == 3) {
            b->bit += 8;
            b->zeros = 0;
        }
    }
    if (b->bit / 8 >= b->size)
        return 0;
    bit = b->data[b->bit / 8] >> (7 - b->bit % 8) & 1;
    b->bit++;
    return bit;
}

static unsigned take_bits(Bits *b, int count)
{
    unsigned value = 0;
    while (count-- > 0)
        value = value << 1 | take_bit(b);
    return value;
}

/* An Exp-Golomb code; only whether it is 0 is ever asked, so its sign does not matter. */
static unsigned take_code(Bits *b)
{
    int zeros = 0;
    while (zeros < 32 && !take_bit(b))
        zeros++;
    return zeros < 32 ? (1u << zeros) - 1 + take_bits(b, zeros) : 0;
}

/* Whether a picture parameter set lets the rows of a picture be decoded side by side (ITU-T H.265, 7.3.2.3.1, up to
 * entropy_coding_sync_enabled_flag). */
static int has_rows_apart(const uint8_t *unit, int size)
{
    Bits b = {unit, size, 16, 0};
    if (size <= 2) /* no more than the unit's header */
        return 0;
    take_code(&b);     /* pps_pic_parameter_set_id */
    take_code(&b);     /* pps_seq_parameter_set_id */
    take_bits(&b, 7);  /* up to cabac_init_present_flag */
    take_code(&b);     /* num_ref_idx_l0_default_active_minus1 */
    take_code(&b);     /* num_ref_idx_l1_default_active_minus1 */
    take_code(&b);     /* init_qp_minus26 */
    take_bits(&b, 2);  /* constrained_intra_pred_flag, transform_skip_enabled_flag */
    if (take_bit(&b))  /* cu_qp_delta_enabled_flag */
        take_code(&b); /* diff_cu_qp_delta_depth */
    take_code(&b);     /* pps_cb_qp_offset */
    take_code(&b);     /* pps_cr_qp_offset */
    take_bits(&b, 5);  /* up to tiles_enabled_flag */
    return take_bit(&b);
}

#define HEVC_PICTURE_PARAMETERS 34

/* Whether the stream's description holds such a set, in the arrays of ISO/IEC 14496-15, 8.3.3.1, or after start codes. */
static int says_rows_apart(const AVCodecParameters *about)
{
    const uint8_t *data = about->extradata;
    int size = about->extradata_size, at, arrays;
    if (size < 4)
        return 0;
    if (data[0] != 1) {
        for (at = 0; at + 5 < size; at++)
            if (!data[at] && !data[at + 1] && data[at + 2] == 1 && (data[at + 3] >> 1 & 63) == HEVC_PICTURE_PARAMETERS)
                return has_rows_apart(data + at + 3, size - at - 3);
        return 0;
    }
    if (size < 23)
        return 0;
    for (at = 23, arrays = data[22]; arrays > 0 && at + 3 <= size; arrays--) {
        int kind = data[at] & 63, units = data[at + 1] << 8 | data[at + 2];
        for (at += 3; units > 0 && at + 2 <= size; units--) {
            int length = data[at] << 8 | data[at + 1];
            at += 2;
            if (length > size - at)
                return 0;
            if (kind == HEVC_PICTURE_PARAMETERS)
                return has_rows_apart(data + at, length);
            at += length;
        }
    }
    return 0;
}

/* Whether a decoder shares one picture out among its threads as well as it would several. Then no frame waits for data of later ones,
 * which may turn out not to be wanted. */
static int shares_out_pictures(const AVCodecParameters *about, int threads)
{
    switch (about->codec_id) {
    case AV_CODEC_ID_PRORES:
    case AV_CODEC_ID_DNXHD:
    case AV_CODEC_ID_FFV1:
        return 1;
    case AV_CODEC_ID_HEVC:
        return threads <= MOST_THREADS_FOR_ROWS && says_rows_apart(about);
    default:
        return 0;
    }
}

static int open_decoder(HbClip *clip, int threads, int one_by_one, const char *device)
{
    const AVCodec *decoder = avcodec_find_decoder(clip->stream->codecpar->codec_id);
    int code;
    if (!decoder)
        return AVERROR_DECODER_NOT_FOUND;
    if (!(clip->codec = avcodec_alloc_context3(decoder)))
        return AVERROR(ENOMEM);
    if ((code = avcodec_parameters_to_context(clip->codec, clip->stream->codecpar)) < 0)
        return code;
    clip->codec->pkt_timebase = clip->stream->time_base;
    clip->codec->max_pixels = MOST_PIXELS;
    clip->codec->thread_count = threads;
    if (one_by_one || shares_out_pictures(clip->stream->codecpar, threads))
        clip->codec->thread_type = FF_THREAD_SLICE;
    clip->device_format = AV_PIX_FMT_NONE;
    if (device)
        ask_device(clip, decoder, device);
    return avcodec_open2(clip->codec, decoder, NULL);
}

int64_t hb_clip_errors(const HbClip *clip, int64_t *first)
{
    *first = clip->first_error;
    return clip->errors;
}

const char *hb_clip_refusal(const HbClip *clip)
{
    return clip->refusal;
}

const char *hb_device_name(int index)
{
    enum AVHWDeviceType type = AV_HWDEVICE_TYPE_NONE;
    do
        type = av_hwdevice_iterate_types(type);
    while (type != AV_HWDEVICE_TYPE_NONE && index-- > 0);
    return av_hwdevice_get_type_name(type);
}

int hb_device_try(const char *device)
{
    AVBufferRef *context = NULL;
    enum AVHWDeviceType type = av_hwdevice_find_type_by_name(device);
    int code;
    av_log_set_level(AV_LOG_QUIET);
    if (type == AV_HWDEVICE_TYPE_NONE)
        return AVERROR(ENODEV);
    code = av_hwdevice_ctx_create(&context, type, NULL, NULL, 0);
    av_buffer_unref(&context);
    return code;
}

/* As many as H.264 and HEVC allow (ITU-T H.264, A.3.1 h; H.265, A.4.2). */
enum { MOST_HELD_BACK = 16 };

/* Whether nothing has to be found out by decoding the first frames, which takes some tenths of a second of AVC: it was when the file was
 * looked into, and this container says the rest itself. */
static int is_known(const HbClip *clip, const HbOpening *how)
{
    const char *name = clip->format->iformat->name;
    const AVCodecParameters *about;
    if (!how || how->stream < 0 || (unsigned)how->stream >= clip->format->nb_streams || how->rate_numerator <= 0 || !how->has_start || how->held_back < 0 || how->held_back > MOST_HELD_BACK)
        return 0;
    about = clip->format->streams[how->stream]->codecpar;
    if (strncmp(name, "mov,", 4) || about->codec_id == AV_CODEC_ID_NONE || about->width <= 0 || about->height <= 0)
        return 0;
    clip->format->streams[how->stream]->codecpar->video_delay = how->held_back;
    return 1;
}

/* Opens the file with all that keeps it from reaching anything else, and finds out about its streams. */
static int open_file(HbClip *clip, const HbOpening *how)
{
    AVDictionary *options = NULL, **each = NULL;
    unsigned streams;
    int code = AVERROR(ENOMEM);
    if (!(clip->format = avformat_alloc_context()))
        return code;
    clip->format->interrupt_callback = (AVIOInterruptCB){is_over, clip};
    begin_call(clip);
    if (av_dict_set(&options, "protocol_whitelist", PROTOCOLS, 0) < 0 || av_dict_set(&options, "format_whitelist", CONTAINERS, 0) < 0
        || av_dict_set(&options, "max_streams", MOST_STREAMS, 0) < 0)
        goto done;
    if ((code = avformat_open_input(&clip->format, clip->path, NULL, &options)) < 0)
        goto done;
    if (is_known(clip, how))
        goto done;
    streams = clip->format->nb_streams;
    if (streams > 0 && !(each = av_calloc(streams, sizeof *each))) {
        code = AVERROR(ENOMEM);
        goto done;
    }
    for (unsigned i = 0; i < streams; i++) {
        av_dict_set_int(&each[i], "max_pixels", MOST_PIXELS, 0);
        av_dict_set(&each[i], "threads", "1", 0);
    }
    code = avformat_find_stream_info(clip->format, each);
    for (unsigned i = 0; i < streams; i++)
        av_dict_free(&each[i]);
done:
    av_freep(&each);
    av_dict_free(&options);
    return code;
}

/* The stream that was chosen when the clip was looked into, or the best where nobody has chosen. */
static int choose_stream(HbClip *clip, int wanted)
{
    int index = wanted >= 0 ? wanted : av_find_best_stream(clip->format, AVMEDIA_TYPE_VIDEO, -1, -1, NULL, 0);
    const AVCodecParameters *about;
    if (index < 0)
        return HB_NO_VIDEO;
    if ((unsigned)index >= clip->format->nb_streams)
        return HB_OTHER_STREAM;
    clip->stream = clip->format->streams[index];
    about = clip->stream->codecpar;
    if (about->codec_type != AVMEDIA_TYPE_VIDEO)
        return HB_OTHER_STREAM;
    if (about->width <= 0 || about->height <= 0 || (int64_t)about->width * about->height > MOST_PIXELS
        || clip->stream->time_base.num <= 0 || clip->stream->time_base.den <= 0)
        return HB_NO_VIDEO;
    for (unsigned i = 0; i < clip->format->nb_streams; i++)
        clip->format->streams[i]->discard = (int)i == index ? AVDISCARD_DEFAULT : AVDISCARD_ALL;
    return 0;
}

int hb_clip_open(const char *path, const HbOpening *how, const char *device, HbClip **out, HbClipInfo *info)
{
    HbClip *clip = av_mallocz(sizeof *clip);
    int code = AVERROR(ENOMEM);
    *out = NULL;
    if (!clip)
        return code;
    av_log_set_level(AV_LOG_QUIET);
    clip->highest = -1;
    if (!(clip->path = av_strdup(path)) || !(clip->packet = av_packet_alloc()))
        goto failed;
    if ((code = open_file(clip, how)) < 0 || (code = choose_stream(clip, how->stream)) < 0)
        goto failed;
    clip->rate = how->rate_numerator > 0 && how->rate_denominator > 0
        ? (AVRational){how->rate_numerator, how->rate_denominator}
        : av_guess_frame_rate(clip->format, clip->stream, NULL);
    if (clip->rate.num <= 0 || clip->rate.den <= 0 || av_q2d(clip->rate) > 10000) {
        code = HB_NO_VIDEO;
        goto failed;
    }
    clip->has_start = how->has_start;
    clip->start = how->has_start ? how->start : clip->stream->start_time == AV_NOPTS_VALUE ? 0 : clip->stream->start_time;
    clip->last_stamp = clip->start;
    clip->frame_count = how->frame_count > 0 ? how->frame_count : clip->stream->nb_frames;
    if ((code = open_decoder(clip, how->threads, how->one_by_one, device)) < 0)
        goto failed;
    info->width = clip->stream->codecpar->width;
    info->height = clip->stream->codecpar->height;
    info->rate_numerator = clip->rate.num;
    info->rate_denominator = clip->rate.den;
    info->pixel_format = clip->stream->codecpar->format;
    info->frame_count = clip->frame_count;
    info->frames_at_once = clip->codec->active_thread_type & FF_THREAD_FRAME ? clip->codec->thread_count : 1;
    info->key_count = avformat_index_get_entries_count(clip->stream);
    *out = clip;
    return 0;
failed:
    hb_clip_close(clip);
    return code;
}

static int ascending(const void *a, const void *b)
{
    int64_t x = *(const int64_t *)a, y = *(const int64_t *)b;
    return (x > y) - (x < y);
}

int hb_clip_keys(HbClip *clip, int64_t *frames, int capacity)
{
    int entries = avformat_index_get_entries_count(clip->stream), count = 0;
    for (int i = 0; i < entries && count < capacity; i++) {
        /* An index holds decoding times; those of frames that stand alone differ from showing times by the
         * stream's constant delay, which the first entry tells. */
        const AVIndexEntry *first = avformat_index_get_entry(clip->stream, 0);
        const AVIndexEntry *entry = avformat_index_get_entry(clip->stream, i);
        if (entry->flags & AVINDEX_KEYFRAME)
            frames[count++] = frame_in_loop(clip, entry->timestamp - first->timestamp + clip->start);
    }
    qsort(frames, count, sizeof *frames, ascending);
    return count;
}

/* Transport and program streams are sought by trying. */
static int without_index(const HbClip *clip)
{
    return strncmp(clip->format->iformat->name, "mpeg", 4) == 0;
}

/* Goes back to the start of the file: by its time stamps, else by its bytes, else by opening it anew. */
static int rewind_file(HbClip *clip)
{
    int index = clip->stream->index, code;
    int64_t first = clip->format->start_time;
    if (first == AV_NOPTS_VALUE)
        first = 0;
    begin_call(clip);
    if (without_index(clip) && avformat_seek_file(clip->format, -1, INT64_MIN, 0, 0, AVSEEK_FLAG_BYTE) >= 0)
        return 0;
    if (avformat_seek_file(clip->format, -1, INT64_MIN, first, first, 0) >= 0)
        return 0;
    avformat_close_input(&clip->format);
    if ((code = open_file(clip, NULL)) < 0)
        return code;
    return choose_stream(clip, index);
}

/* Packets that a whole file gives, or 0 where it does not say. */
static int64_t packets_in_file(const HbClip *clip)
{
    int64_t said = clip->stream->nb_frames, indexed = avformat_index_get_entries_count(clip->stream);
    return said < indexed ? said : indexed;
}

/* At the end of the file: what was read has to be all of it, and the loop's length is known from now on. */
static int end_loop(HbClip *clip)
{
    int64_t room;
    if (!clip->sought && (clip->read_in_loop == 0 || clip->read_in_loop < packets_in_file(clip)))
        return HB_TRUNCATED;
    clip->looked |= !clip->sought;
    if (clip->frame_count <= 0)
        clip->frame_count = frame_in_loop(clip, clip->last_stamp) + 1;
    if (clip->span == 0) {
        room = av_rescale_q(clip->frame_count, av_inv_q(clip->rate), clip->stream->time_base) + clip->last_stamp - clip->start + 16;
        for (clip->span = 16; clip->span < 4 * room && clip->span < INT64_MAX / 4; clip->span *= 2)
            ;
    }
    return 0;
}

static int begin_loop(HbClip *clip)
{
    int code = rewind_file(clip);
    if (code < 0)
        return code;
    clip->loop++;
    clip->read_in_loop = 0;
    clip->sought = 0;
    return 0;
}

/* A loop that begins on a picture which stands alone and is the first to be shown can follow another at once. In all others pictures
 * of the loop before would be taken for those that the file lacks. */
static void look_at_loop(HbClip *clip, int64_t stamp)
{
    const AVPacket *packet = clip->packet;
    if (clip->looked || clip->sought)
        return;
    if (packet->pts == AV_NOPTS_VALUE || packet->flags & AV_PKT_FLAG_DISCARD
        || (clip->read_in_loop == 1 && !(packet->flags & AV_PKT_FLAG_KEY)) || stamp < clip->start)
        clip->open_ended = 1;
}

static int64_t loop_of(const HbClip *clip, int64_t number)
{
    return clip->frame_count > 0 ? number / clip->frame_count : 0;
}

static int64_t within_loop(const HbClip *clip, int64_t number)
{
    return number - loop_of(clip, number) * clip->frame_count;
}

static int64_t first_wanted(const HbClip *clip)
{
    return clip->wanted_count > 0 ? clip->wanted[0] : 0;
}

static int64_t last_wanted(const HbClip *clip)
{
    return clip->wanted_count > 0 ? clip->wanted[clip->wanted_count - 1] : 0;
}

/* Whether a packet lies before what is wanted next. None does in a loop that is wanted from its start, since some that are never shown
 * come first. */
static int is_passed_over(const HbClip *clip, int64_t within)
{
    int64_t loop = loop_of(clip, first_wanted(clip)), first = within_loop(clip, first_wanted(clip));
    return clip->loop < loop || (clip->loop == loop && first > 0 && within < first);
}

/* What was wanted and is read; the last of it stays, for packets that come after it and lie before it. */
static void drop_read(HbClip *clip)
{
    while (clip->wanted_count > 1 && clip->wanted[0] < clip->next_number)
        memmove(clip->wanted, clip->wanted + 1, --clip->wanted_count * sizeof *clip->wanted);
}

static int64_t moment_of(const HbClip *clip, int64_t within)
{
    return clip->start + av_rescale_q(within, av_inv_q(clip->rate), clip->stream->time_base);
}

/* Goes ahead in the file to a frame of this loop that is far off. Where that fails, what lies between is read and passed over. */
static void go_ahead(HbClip *clip)
{
    int64_t number = first_wanted(clip);
    if (number - clip->next_number <= SEEK_OVER || loop_of(clip, number) != clip->loop || clip->landing || without_index(clip)
        || packets_in_file(clip) == 0)
        return;
    begin_call(clip);
    if (av_seek_frame(clip->format, clip->stream->index, moment_of(clip, within_loop(clip, number)), AVSEEK_FLAG_BACKWARD) >= 0)
        clip->sought = 1;
}

/* Reads the next packet that is wanted, going round at the end of the file. AVERROR_EOF when the decoder has to be emptied first.
 * number becomes the frame that the packet holds, so far as its time stamps tell. */
static int read_packet(HbClip *clip, int64_t *number)
{
    int rounds = 0;
    drop_read(clip);
    go_ahead(clip);
    for (;;) {
        int64_t within;
        int code;
        begin_call(clip);
        code = av_read_frame(clip->format, clip->packet);
        if (code == AVERROR_EOF) {
            if (clip->given_up)
                return AVERROR_EXIT;
            if ((code = end_loop(clip)) < 0)
                return code;
            if (clip->open_ended || !clip->looked)
                return AVERROR_EOF;
            if ((code = begin_loop(clip)) < 0)
                return code;
            if (++rounds > MOST_ROUNDS_WITHOUT_ANY && clip->loop > loop_of(clip, first_wanted(clip)))
                return AVERROR_INVALIDDATA;
            continue;
        }
        if (code < 0)
            return code;
        if (clip->packet->stream_index != clip->stream->index) {
            av_packet_unref(clip->packet);
            continue;
        }
        clip->read_in_loop++;
        if (clip->packet->flags & AV_PKT_FLAG_CORRUPT && clip->read_in_loop == packets_in_file(clip)) {
            av_packet_unref(clip->packet);
            return HB_TRUNCATED;
        }
        int64_t stamp = clip->packet->pts != AV_NOPTS_VALUE ? clip->packet->pts : clip->packet->dts;
        if (stamp != AV_NOPTS_VALUE && (stamp > INT64_MAX / 8 || stamp < -INT64_MAX / 8)) {
            av_packet_unref(clip->packet);
            return AVERROR_INVALIDDATA;
        }
        look_at_loop(clip, stamp == AV_NOPTS_VALUE ? clip->start : stamp);
        if (stamp != AV_NOPTS_VALUE && stamp > clip->last_stamp)
            clip->last_stamp = stamp;
        within = stamp == AV_NOPTS_VALUE ? within_loop(clip, first_wanted(clip)) : frame_in_loop(clip, stamp);
        if (clip->landing && within > within_loop(clip, first_wanted(clip))) {
            /* Past the frame that was wanted: then all is read from the start, and passed over up to it. */
            clip->landing = 0;
            av_packet_unref(clip->packet);
            if ((code = rewind_file(clip)) < 0)
                return code;
            continue;
        }
        clip->landing = 0;
        if (is_passed_over(clip, within)) {
            av_packet_unref(clip->packet);
            continue;
        }
        *number = stamp == AV_NOPTS_VALUE ? clip->next_number : clip->loop * clip->frame_count + within;
        if (clip->packet->pts != AV_NOPTS_VALUE)
            clip->packet->pts += clip->loop * clip->span;
        if (clip->packet->dts != AV_NOPTS_VALUE)
            clip->packet->dts += clip->loop * clip->span;
        return 0;
    }
}

/* Returns what was spent since then. */
static int64_t spend(HbClip *clip, int64_t *account, int64_t began)
{
    int64_t spent = now_ns() - began;
    *account += spent;
    clip->active_ns += spent;
    return spent;
}

/* Damaged data is gone past, as long as something can be decoded now and then. */
static int count_error(HbClip *clip, int64_t frame)
{
    if (clip->errors++ == 0)
        clip->first_error = frame;
    return ++clip->errors_in_a_row < MOST_ERRORS_IN_A_ROW ? 0 : AVERROR_INVALIDDATA;
}

static int feed_decoder(HbClip *clip, HbTimes *times)
{
    int64_t began = now_ns(), number = 0;
    clip->reading_since = began;
    int code = clip->draining ? AVERROR_EOF : read_packet(clip, &number);
    clip->reading_since = 0;
    clip->read_ns += spend(clip, &times->read_ns, began);
    if (code == AVERROR_EOF) {
        clip->draining = 1;
        return avcodec_send_packet(clip->codec, NULL);
    }
    if (code < 0)
        return code;
    clip->sent_at[number & (SENT_SLOTS - 1)] = clip->active_ns;
    if (number >= clip->next_number)
        clip->next_number = number + 1;
    clip->codec->skip_frame = number < clip->skip_before ? AVDISCARD_NONREF : AVDISCARD_DEFAULT;
    began = now_ns();
    code = avcodec_send_packet(clip->codec, clip->packet);
    spend(clip, &times->decode_ns, began);
    if (code == AVERROR_INVALIDDATA)
        code = count_error(clip, number);
    av_packet_unref(clip->packet);
    return code;
}

/* The decoder has given all it held; the next loop begins with it empty. */
static int go_round(HbClip *clip)
{
    clip->draining = 0;
    avcodec_flush_buffers(clip->codec);
    return begin_loop(clip);
}

/* The number of a decoded picture; those without a time stamp follow on each other. */
static int64_t number_of(HbClip *clip, const AVFrame *frame)
{
    int64_t stamp = frame->best_effort_timestamp;
    if (stamp == AV_NOPTS_VALUE)
        return clip->highest + 1;
    if (!clip->has_start) {
        clip->has_start = 1;
        if (!clip->sought && clip->loop == 0)
            clip->start = stamp;
    }
    return frame_of(clip, stamp);
}

/* Every picture has to be like the first: the effects were set up for it. */
static int check_alike(HbClip *clip, const AVFrame *frame)
{
    if (clip->width == 0) {
        clip->width = frame->width;
        clip->height = frame->height;
        clip->pixel_format = frame->format;
    }
    return frame->width == clip->width && frame->height == clip->height && frame->format == clip->pixel_format ? 0 : HB_CHANGED;
}

/* Brings a picture that lies on a device to main memory. */
static int fetch(HbClip *clip, AVFrame *frame)
{
    AVFrame *fetched;
    int code;
    if (frame->format != clip->device_format)
        return 0;
    if (!(fetched = av_frame_alloc()))
        return AVERROR(ENOMEM);
    if ((code = av_hwframe_transfer_data(fetched, frame, 0)) >= 0 && (code = av_frame_copy_props(fetched, frame)) >= 0) {
        av_frame_unref(frame);
        av_frame_move_ref(frame, fetched);
        code = 0;
    }
    av_frame_free(&fetched);
    return code;
}

static int give_frame(HbClip *clip, HbFrame **out, int64_t *number, HbTimes *times, int only_held)
{
    AVFrame *frame = av_frame_alloc();
    int code, loops_without_any = 0;
    int64_t last_loop = loop_of(clip, last_wanted(clip)), first_loop = clip->loop > last_loop ? clip->loop : last_loop;
    *out = NULL;
    *times = (HbTimes){0};
    if (!frame)
        return AVERROR(ENOMEM);
    do {
        int64_t began = now_ns();
        if (clip->given_up) {
            code = AVERROR_EXIT;
            break;
        }
        code = avcodec_receive_frame(clip->codec, frame);
        if (code == 0 && (code = fetch(clip, frame)) < 0)
            break;
        spend(clip, &times->decode_ns, began);
        if (code == 0) {
            if ((code = check_alike(clip, frame)) < 0)
                break;
            *number = number_of(clip, frame);
            if (frame->decode_error_flags || frame->flags & AV_FRAME_FLAG_CORRUPT)
                count_error(clip, *number);
            clip->errors_in_a_row = 0;
            if (*number > clip->highest)
                clip->highest = *number;
            times->latency_ns = clip->active_ns - clip->sent_at[*number & (SENT_SLOTS - 1)];
            frame->pict_type = AV_PICTURE_TYPE_NONE;
            *out = frame;
            return 0;
        }
        if (code == AVERROR_INVALIDDATA)
            code = count_error(clip, clip->next_number - 1);
        else if (code == AVERROR(EAGAIN))
            /* A decoder that takes all packets of the whole file again and again and gives no picture never will. */
            code = clip->loop > first_loop + MOST_ROUNDS_WITHOUT_ANY ? AVERROR_INVALIDDATA : feed_decoder(clip, times);
        else if (code == AVERROR_EOF && only_held) {
            clip->draining = 0;
            avcodec_flush_buffers(clip->codec);
            av_frame_free(&frame);
            return HB_NONE_HELD;
        }
        else if (code == AVERROR_EOF && clip->draining)
            code = loops_without_any++ < MOST_ROUNDS_WITHOUT_ANY ? go_round(clip) : AVERROR_INVALIDDATA;
    } while (code >= 0);
    av_frame_free(&frame);
    return code;
}

int hb_clip_next(HbClip *clip, HbFrame **out, int64_t *number, int64_t *next_number, HbTimes *times)
{
    int code = give_frame(clip, out, number, times, 0);
    *next_number = clip->next_number;
    return code;
}

int hb_clip_next_held(HbClip *clip, HbFrame **out, int64_t *number, HbTimes *times)
{
    *out = NULL;
    /* At the end of a loop it is being emptied already, and goes on with the next. */
    if (clip->draining && !clip->emptying)
        return HB_NONE_HELD;
    if (!clip->draining) {
        int code = avcodec_send_packet(clip->codec, NULL);
        if (code < 0 && code != AVERROR_EOF)
            return code;
    }
    clip->draining = clip->emptying = 1;
    int code = give_frame(clip, out, number, times, 1);
    if (code != 0)
        clip->emptying = 0;
    return code;
}

void hb_clip_skip_unreferenced(HbClip *clip, int64_t before)
{
    clip->skip_before = before;
}

void hb_clip_want(HbClip *clip, int64_t number)
{
    if (clip->wanted_count == MOST_WANTED)
        clip->wanted_count--;
    clip->wanted[clip->wanted_count++] = number;
}

static void want_only(HbClip *clip, int64_t number)
{
    clip->wanted_count = 0;
    hb_clip_want(clip, number);
}

/* Frames of this codec name those that they need by their place in the order of showing, so that none seem to be lost where a stretch is
 * left out; what leads up to the frame that stands alone is passed over when it is read. */
int hb_clip_goes_on(const HbClip *clip)
{
    return clip->codec->codec_id == AV_CODEC_ID_HEVC && !clip->codec->hw_device_ctx;
}

void hb_clip_leap(HbClip *clip, int64_t number)
{
    want_only(clip, number);
    if (!hb_clip_goes_on(clip))
        avcodec_flush_buffers(clip->codec);
}

int hb_clip_seek(HbClip *clip, int64_t number)
{
    int64_t loop = loop_of(clip, number), within = within_loop(clip, number);
    int64_t moment = moment_of(clip, within);
    int code;
    begin_call(clip);
    if (clip->span == 0 && loop > 0) {
        clip->sought = 1;
        if ((code = end_loop(clip)) < 0)
            return code;
    }
    /* Without an index seeking ends anywhere near, so it aims well before; what lies between is read and passed over. */
    clip->landing = within > 0 && without_index(clip);
    if (clip->landing)
        moment -= av_rescale_q(LANDING_SECONDS, (AVRational){1, 1}, clip->stream->time_base);
    code = within > 0 && moment > clip->start ? av_seek_frame(clip->format, clip->stream->index, moment, AVSEEK_FLAG_BACKWARD) : -1;
    if (code < 0) {
        clip->landing = 0;
        if ((code = rewind_file(clip)) < 0)
            return code;
    }
    avcodec_flush_buffers(clip->codec);
    clip->draining = 0;
    clip->loop = loop;
    clip->sought = 1;
    clip->read_in_loop = 0;
    want_only(clip, number);
    clip->next_number = number;
    clip->highest = number - 1;
    return 0;
}

void hb_clip_close(HbClip *clip)
{
    if (!clip)
        return;
    av_packet_free(&clip->packet);
    avcodec_free_context(&clip->codec);
    avformat_close_input(&clip->format);
    av_freep(&clip->path);
    av_free(clip);
}

/* ---- graphs ---- */

static int add_source(HbGraph *g, int i, const HbInput *in, AVFilterInOut **outputs)
{
    char name[16], arguments[160];
    AVFilterInOut *end;
    int code;
    snprintf(name, sizeof name, "in%d", i);
    snprintf(arguments, sizeof arguments, "video_size=%dx%d:pix_fmt=%d:time_base=%d/%d:frame_rate=%d/%d:pixel_aspect=1/1",
             in->width, in->height, in->pixel_format, in->rate_denominator, in->rate_numerator,
             in->rate_numerator, in->rate_denominator);
    if ((code = avfilter_graph_create_filter(&g->sources[i], avfilter_get_by_name("buffer"), name, arguments, NULL, g->graph)) < 0)
        return code;
    if (!(end = avfilter_inout_alloc()))
        return AVERROR(ENOMEM);
    end->name = av_strdup(name);
    end->filter_ctx = g->sources[i];
    end->next = *outputs;
    *outputs = end;
    return 0;
}

int hb_has_filter(const char *name)
{
    return avfilter_get_by_name(name) != NULL;
}

/* Only the filters between hwupload and hwdownload use it; the others do not mind. */
static int give_device(AVFilterGraph *graph, const char *device)
{
    AVBufferRef *context = NULL;
    enum AVHWDeviceType type = av_hwdevice_find_type_by_name(device);
    int code = type == AV_HWDEVICE_TYPE_NONE ? AVERROR(ENODEV) : av_hwdevice_ctx_create(&context, type, NULL, NULL, 0);
    for (unsigned i = 0; code >= 0 && i < graph->nb_filters; i++)
        if (!(graph->filters[i]->hw_device_ctx = av_buffer_ref(context)))
            code = AVERROR(ENOMEM);
    av_buffer_unref(&context);
    return code;
}

int hb_graph_open(const char *description, int inputs, const HbInput *input, int threads, const char *device, HbGraph **out)
{
    HbGraph *g = av_mallocz(sizeof *g);
    AVFilterInOut *sources = NULL, *sink = NULL;
    int code = AVERROR(ENOMEM);
    *out = NULL;
    if (inputs < 1 || inputs > HB_MOST_INPUTS) {
        code = AVERROR(EINVAL);
        goto failed;
    }
    if (!g || !(g->graph = avfilter_graph_alloc()) || !(g->sources = av_calloc(inputs, sizeof *g->sources))
        || !(g->taken = av_memdup(input, inputs * sizeof *input)))
        goto failed;
    g->inputs = inputs;
    g->graph->nb_threads = threads;
    g->graph->scale_sws_opts = av_strdup("flags=bicubic");
    for (int i = 0; i < inputs; i++)
        if ((code = add_source(g, i, &input[i], &sources)) < 0)
            goto failed;
    if ((code = avfilter_graph_create_filter(&g->sink, avfilter_get_by_name("buffersink"), "out", NULL, NULL, g->graph)) < 0)
        goto failed;
    if (!(sink = avfilter_inout_alloc())) {
        code = AVERROR(ENOMEM);
        goto failed;
    }
    sink->name = av_strdup("out");
    sink->filter_ctx = g->sink;
    if ((code = avfilter_graph_parse_ptr(g->graph, description, &sink, &sources, NULL)) < 0
        || (device && (code = give_device(g->graph, device)) < 0)
        || (code = avfilter_graph_config(g->graph, NULL)) < 0)
        goto failed;
    avfilter_inout_free(&sources);
    avfilter_inout_free(&sink);
    *out = g;
    return 0;
failed:
    avfilter_inout_free(&sources);
    avfilter_inout_free(&sink);
    hb_graph_close(g);
    return code;
}

int hb_graph_give(HbGraph *g, HbFrame *const *frames, int64_t position)
{
    int code = 0;
    /* Filters hold on to the raster and format that they were set up for, and would read past the end of any other. */
    for (int i = 0; i < g->inputs; i++)
        if (frames[i]->width != g->taken[i].width || frames[i]->height != g->taken[i].height || frames[i]->format != g->taken[i].pixel_format)
            return HB_CHANGED;
    for (int i = 0; code >= 0 && i < g->inputs; i++) {
        frames[i]->pts = position;
        code = av_buffersrc_add_frame_flags(g->sources[i], frames[i], AV_BUFFERSRC_FLAG_KEEP_REF);
    }
    return code;
}

int hb_graph_take(HbGraph *g, HbFrame **treated)
{
    AVFrame *frame = av_frame_alloc();
    int code;
    *treated = NULL;
    if (!frame)
        return AVERROR(ENOMEM);
    code = av_buffersink_get_frame(g->sink, frame);
    if (code == 0) {
        *treated = frame;
        return 0;
    }
    av_frame_free(&frame);
    return code == AVERROR(EAGAIN) ? HB_END : code;
}

void hb_graph_close(HbGraph *g)
{
    if (!g)
        return;
    avfilter_graph_free(&g->graph);
    av_freep(&g->sources);
    av_freep(&g->taken);
    av_free(g);
}

/* ---- frames ---- */

void hb_frame_free(HbFrame *frame)
{
    av_frame_free(&frame);
}

void hb_frame_about(const HbFrame *frame, int32_t *width, int32_t *height, int32_t *pixel_format, int64_t *moment)
{
    *width = frame->width;
    *height = frame->height;
    *pixel_format = frame->format;
    *moment = frame->pts;
}

HbFrame *hb_frame_another(const HbFrame *frame)
{
    return av_frame_clone(frame);
}

int hb_frame_copy(const HbFrame *frame, uint8_t *bytes, int size)
{
    if (!bytes)
        return av_image_get_buffer_size(frame->format, frame->width, frame->height, 1);
    return av_image_copy_to_buffer(bytes, size, (const uint8_t *const *)frame->data, frame->linesize,
                                   frame->format, frame->width, frame->height, 1);
}

static int encode_jpeg(AVFrame *picture, uint8_t *bytes, int size)
{
    const AVCodec *encoder = avcodec_find_encoder(AV_CODEC_ID_MJPEG);
    AVCodecContext *codec = encoder ? avcodec_alloc_context3(encoder) : NULL;
    AVPacket *packet = av_packet_alloc();
    int code = AVERROR(ENOMEM);
    if (!codec || !packet)
        goto done;
    codec->width = picture->width;
    codec->height = picture->height;
    codec->pix_fmt = AV_PIX_FMT_YUVJ420P;
    codec->time_base = (AVRational){1, 25};
    codec->thread_count = 1;
    codec->flags |= AV_CODEC_FLAG_QSCALE;
    codec->global_quality = 6 * FF_QP2LAMBDA;
    if ((code = avcodec_open2(codec, encoder, NULL)) < 0
        || (code = avcodec_send_frame(codec, picture)) < 0
        || (code = avcodec_receive_packet(codec, packet)) < 0)
        goto done;
    code = packet->size <= size ? packet->size : AVERROR(ENOSPC);
    if (code > 0)
        memcpy(bytes, packet->data, packet->size);
done:
    av_packet_free(&packet);
    avcodec_free_context(&codec);
    return code;
}

int hb_frame_jpeg(const HbFrame *frame, int width, uint8_t *bytes, int size)
{
    int64_t tall = (int64_t)width * frame->height / frame->width & ~1;
    int height = tall < 2 ? 2 : tall > 8192 ? 8192 : (int)tall, code;
    struct SwsContext *scaler = sws_getContext(frame->width, frame->height, frame->format, width, height,
                                               AV_PIX_FMT_YUVJ420P, SWS_FAST_BILINEAR, NULL, NULL, NULL);
    AVFrame *picture = av_frame_alloc();
    code = AVERROR(ENOMEM);
    if (!scaler || !picture)
        goto done;
    picture->width = width;
    picture->height = height;
    picture->format = AV_PIX_FMT_YUVJ420P;
    if ((code = av_frame_get_buffer(picture, 0)) < 0)
        goto done;
    sws_scale(scaler, (const uint8_t *const *)frame->data, frame->linesize, 0, frame->height, picture->data, picture->linesize);
    picture->quality = 6 * FF_QP2LAMBDA;
    code = encode_jpeg(picture, bytes, size);
done:
    av_frame_free(&picture);
    sws_freeContext(scaler);
    return code;
}

int hb_raise_priority(void)
{
    return setpriority(PRIO_PROCESS, (id_t)syscall(SYS_gettid), -10);
}

/* ---- the system's file cache ---- */

int hb_cache(const char *path, int warm)
{
    enum { SIZE = 1 << 20 };
    char *bytes = malloc(SIZE);
    int file, code = AVERROR(ENOMEM);
    ssize_t some;
    if (!bytes)
        return code;
    if ((file = open(path, O_RDONLY | O_CLOEXEC)) < 0) {
        code = AVERROR(errno);
        free(bytes);
        return code;
    }
    if (warm) {
        while ((some = read(file, bytes, SIZE)) > 0)
            ;
        code = some < 0 ? AVERROR(errno) : 0;
    } else if (fdatasync(file) < 0) { /* pages not yet written cannot be dropped */
        code = AVERROR(errno);
    } else {
        code = AVERROR(posix_fadvise(file, 0, 0, POSIX_FADV_DONTNEED)); /* gives its error and does not set errno */
    }
    free(bytes);
    close(file);
    return code;
}

int hb_cached(const char *path)
{
    int file = open(path, O_RDONLY | O_CLOEXEC), code = AVERROR(ENOMEM);
    long page = sysconf(_SC_PAGESIZE);
    struct stat about = {0};
    size_t pages, held = 0;
    unsigned char *present;
    void *mapped;
    if (file < 0)
        return AVERROR(errno);
    if (fstat(file, &about) < 0) {
        code = AVERROR(errno);
        close(file);
        return code;
    }
    if (about.st_size == 0) {
        close(file);
        return 1000000;
    }
    pages = (about.st_size + page - 1) / page;
    present = malloc(pages);
    mapped = present ? mmap(NULL, about.st_size, PROT_READ, MAP_SHARED, file, 0) : MAP_FAILED;
    if (mapped != MAP_FAILED) {
        if (mincore(mapped, about.st_size, present) == 0) {
            for (size_t i = 0; i < pages; i++)
                held += present[i] & 1;
            code = (int)(held * 1000000 / pages);
        } else {
            code = AVERROR(errno);
        }
        munmap(mapped, about.st_size);
    } else if (present) {
        code = AVERROR(errno);
    }
    free(present);
    close(file);
    return code;
}
