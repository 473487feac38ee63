/* Frames as bytes and as pictures to look at. */
#include "hardybench.h"

#include <libavcodec/avcodec.h>
#include <libavutil/imgutils.h>
#include <libavutil/opt.h>
#include <libswscale/swscale.h>

void hb_frame_free(HbFrame *frame)
{
    av_frame_free(&frame);
}

HbFrame *hb_frame_another(const HbFrame *frame)
{
    return av_frame_clone(frame);
}

void hb_frame_about(const HbFrame *frame, int32_t *width, int32_t *height, int32_t *pixel_format, int64_t *moment)
{
    *width = frame->width;
    *height = frame->height;
    *pixel_format = frame->format;
    *moment = frame->pts;
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
