#define _GNU_SOURCE
#include "hardybench.h"

#include <stdio.h>
#include <sys/resource.h>
#include <sys/syscall.h>
#include <time.h>
#include <unistd.h>

#include <libavcodec/avcodec.h>
#include <libavfilter/avfilter.h>
#include <libavfilter/buffersink.h>
#include <libavfilter/buffersrc.h>
#include <libavformat/avformat.h>
#include <libavutil/imgutils.h>
#include <libavutil/opt.h>
#include <libswscale/swscale.h>

#define SENT_SLOTS 256 /* more than any decoder holds back */

struct HbClip {
    AVFormatContext *format;
    AVCodecContext *codec;
    AVStream *stream;
    AVPacket *packet;
    AVRational rate;
    int64_t start;        /* timestamp of frame 0 */
    int64_t frame_count;
    int64_t base;         /* frames of all loops before this one */
    int64_t read_in_loop; /* packets read since the start of the file */
    int64_t leap_to;      /* packets below this frame are passed over */
    int64_t active_ns;    /* time spent reading and decoding since the clip was opened */
    int64_t next_number;  /* the number after the highest that was sent to the decoder */
    int64_t sent_at[SENT_SLOTS]; /* active_ns when a frame's packet was sent, by number */
};

struct HbGraph {
    AVFilterGraph *graph;
    AVFilterContext **sources;
    AVFilterContext *sink;
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
    else
        av_strerror(code, text, size);
}

/* ---- clips ---- */

static int64_t frame_of(const HbClip *clip, int64_t timestamp)
{
    return av_rescale_q_rnd(timestamp - clip->start, clip->stream->time_base, av_inv_q(clip->rate), AV_ROUND_NEAR_INF);
}

static int open_decoder(HbClip *clip, int threads)
{
    const AVCodec *decoder = avcodec_find_decoder(clip->stream->codecpar->codec_id);
    int code;
    if (!decoder)
        return AVERROR_DECODER_NOT_FOUND;
    if (!(clip->codec = avcodec_alloc_context3(decoder)))
        return AVERROR(ENOMEM);
    if ((code = avcodec_parameters_to_context(clip->codec, clip->stream->codecpar)) < 0)
        return code;
    clip->codec->pkt_timebase = av_inv_q(clip->rate);
    clip->codec->thread_count = threads;
    return avcodec_open2(clip->codec, decoder, NULL);
}

int hb_clip_open(const char *path, int threads, HbClip **out, HbClipInfo *info)
{
    HbClip *clip = av_mallocz(sizeof *clip);
    int code, index;
    *out = NULL;
    if (!clip)
        return AVERROR(ENOMEM);
    av_log_set_level(AV_LOG_QUIET);
    if ((code = avformat_open_input(&clip->format, path, NULL, NULL)) < 0
        || (code = avformat_find_stream_info(clip->format, NULL)) < 0)
        goto failed;
    if ((index = av_find_best_stream(clip->format, AVMEDIA_TYPE_VIDEO, -1, -1, NULL, 0)) < 0) {
        code = HB_NO_VIDEO;
        goto failed;
    }
    clip->stream = clip->format->streams[index];
    clip->rate = av_guess_frame_rate(clip->format, clip->stream, NULL);
    if (clip->rate.num <= 0 || clip->rate.den <= 0 || clip->stream->codecpar->width <= 0) {
        code = HB_NO_VIDEO;
        goto failed;
    }
    clip->start = clip->stream->start_time == AV_NOPTS_VALUE ? 0 : clip->stream->start_time;
    clip->frame_count = clip->stream->nb_frames;
    if (!(clip->packet = av_packet_alloc())) {
        code = AVERROR(ENOMEM);
        goto failed;
    }
    if ((code = open_decoder(clip, threads)) < 0)
        goto failed;
    info->width = clip->stream->codecpar->width;
    info->height = clip->stream->codecpar->height;
    info->rate_numerator = clip->rate.num;
    info->rate_denominator = clip->rate.den;
    info->pixel_format = clip->stream->codecpar->format;
    info->frame_count = clip->frame_count;
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
            frames[count++] = frame_of(clip, entry->timestamp - first->timestamp + clip->start);
    }
    qsort(frames, count, sizeof *frames, ascending);
    return count;
}

/* Reads the next packet that is wanted, going round at the end of the file; its pts becomes the frame's number. */
static int read_packet(HbClip *clip)
{
    for (;;) {
        int code = av_read_frame(clip->format, clip->packet);
        if (code == AVERROR_EOF) {
            if (clip->read_in_loop == 0 || (clip->frame_count > 0 && clip->read_in_loop < clip->frame_count))
                return HB_TRUNCATED;
            clip->frame_count = clip->read_in_loop;
            clip->base += clip->frame_count;
            clip->read_in_loop = 0;
            if ((code = av_seek_frame(clip->format, clip->stream->index, clip->start, AVSEEK_FLAG_BACKWARD)) < 0)
                return code;
            continue;
        }
        if (code < 0)
            return code;
        if (clip->packet->stream_index != clip->stream->index) {
            av_packet_unref(clip->packet);
            continue;
        }
        clip->read_in_loop++;
        if (clip->packet->flags & AV_PKT_FLAG_CORRUPT) {
            av_packet_unref(clip->packet);
            return HB_TRUNCATED;
        }
        int64_t stamp = clip->packet->pts != AV_NOPTS_VALUE ? clip->packet->pts : clip->packet->dts;
        int64_t number = clip->base + frame_of(clip, stamp);
        if (number < clip->leap_to) {
            av_packet_unref(clip->packet);
            continue;
        }
        clip->packet->pts = number;
        clip->packet->dts = AV_NOPTS_VALUE;
        clip->packet->duration = 1;
        return 0;
    }
}

static void spend(HbClip *clip, int64_t *account, int64_t began)
{
    int64_t spent = now_ns() - began;
    *account += spent;
    clip->active_ns += spent;
}

static int feed_decoder(HbClip *clip, HbTimes *times)
{
    int64_t began = now_ns();
    int code = read_packet(clip);
    spend(clip, &times->read_ns, began);
    if (code < 0)
        return code;
    clip->sent_at[clip->packet->pts % SENT_SLOTS] = clip->active_ns;
    if (clip->packet->pts >= clip->next_number)
        clip->next_number = clip->packet->pts + 1;
    began = now_ns();
    code = avcodec_send_packet(clip->codec, clip->packet);
    spend(clip, &times->decode_ns, began);
    av_packet_unref(clip->packet);
    return code;
}

int hb_clip_next(HbClip *clip, HbFrame **out, int64_t *number, int64_t *next_number, HbTimes *times)
{
    AVFrame *frame = av_frame_alloc();
    int code;
    *out = NULL;
    *times = (HbTimes){0};
    if (!frame)
        return AVERROR(ENOMEM);
    do {
        int64_t began = now_ns();
        code = avcodec_receive_frame(clip->codec, frame);
        spend(clip, &times->decode_ns, began);
        if (code == 0) {
            *number = frame->pts;
            *next_number = clip->next_number;
            times->latency_ns = clip->active_ns - clip->sent_at[frame->pts % SENT_SLOTS];
            frame->pict_type = AV_PICTURE_TYPE_NONE;
            *out = frame;
            return 0;
        }
        if (code == AVERROR(EAGAIN))
            code = feed_decoder(clip, times);
    } while (code >= 0);
    av_frame_free(&frame);
    return code;
}

void hb_clip_skip_unreferenced(HbClip *clip, int on)
{
    clip->codec->skip_frame = on ? AVDISCARD_NONREF : AVDISCARD_DEFAULT;
}

void hb_clip_leap(HbClip *clip, int64_t number, int flush)
{
    clip->leap_to = number;
    if (flush)
        avcodec_flush_buffers(clip->codec);
}

void hb_clip_close(HbClip *clip)
{
    if (!clip)
        return;
    av_packet_free(&clip->packet);
    avcodec_free_context(&clip->codec);
    avformat_close_input(&clip->format);
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

int hb_graph_open(const char *description, int inputs, const HbInput *input, int threads, HbGraph **out)
{
    HbGraph *g = av_mallocz(sizeof *g);
    AVFilterInOut *sources = NULL, *sink = NULL;
    int code = AVERROR(ENOMEM);
    *out = NULL;
    if (!g || !(g->graph = avfilter_graph_alloc()) || !(g->sources = av_calloc(inputs, sizeof *g->sources)))
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

int hb_graph_run(HbGraph *g, HbFrame *const *frames, int64_t position, HbFrame **treated)
{
    AVFrame *frame = av_frame_alloc();
    int code;
    *treated = NULL;
    if (!frame)
        return AVERROR(ENOMEM);
    for (int i = 0; i < g->inputs; i++) {
        frames[i]->pts = position;
        code = av_buffersrc_add_frame_flags(g->sources[i], frames[i], AV_BUFFERSRC_FLAG_KEEP_REF);
        if (code < 0)
            goto failed;
    }
    code = av_buffersink_get_frame(g->sink, frame);
    if (code == AVERROR(EAGAIN))
        code = HB_END;
    if (code == 0) {
        *treated = frame;
        return 0;
    }
failed:
    av_frame_free(&frame);
    return code;
}

void hb_graph_close(HbGraph *g)
{
    if (!g)
        return;
    avfilter_graph_free(&g->graph);
    av_freep(&g->sources);
    av_free(g);
}

/* ---- frames ---- */

void hb_frame_free(HbFrame *frame)
{
    av_frame_free(&frame);
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
    int height = (int)((int64_t)width * frame->height / frame->width) & ~1, code;
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
